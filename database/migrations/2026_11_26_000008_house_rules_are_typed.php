<?php

use App\Shop\RuleDefinition;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What a rule asks is shipped with the program (database/house-rules.json); a row is what the shop itself decided.
return new class extends Migration
{
    public function up(): void
    {
        $owner = DB::connection('owner');
        foreach ($owner->table('house_rules')->whereNull('set_by')->get(['id', 'code', 'choice']) as $rule) {
            $shipped = RuleDefinition::all()[$rule->code] ?? null;
            if ($shipped !== null && $shipped->default === $rule->choice) {
                $owner->table('house_rules')->where('id', $rule->id)->delete();
            }
        }
        $owner->unprepared(
            <<<'SQL'
            SET @@system_versioning_alter_history = KEEP;
            ALTER TABLE house_rules DROP COLUMN question, DROP COLUMN choices;
            SQL,
        );
    }
};
