<?php

use App\Catalog\Exchange\PackUpgrade;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What the installer has to do and what the warranty rests on stood in the program; a shop that works already gets it
// as the entry of its catalog that it can now change. A new house gets it with its first pack.
return new class extends Migration
{
    public function up(): void
    {
        $vocabularies = DB::connection('owner')->table('vocabularies');
        if ($vocabularies->exists() && $vocabularies->where('code', 'installation')->doesntExist()) {
            $entry = PackUpgrade::installation();
            DB::connection('owner')->table('vocabularies')->insert([
                'code' => $entry->code,
                'source' => $entry->source,
                'body' => json_encode($entry->body, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            ]);
        }
    }
};
