<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// A shop set up before the order desk reckoned with pressure, shift speed, grade and days gets these rules as well.
return new class extends Migration
{
    private const RULES = [
        'pressure-limit' => [
            'Line pressure no gear may pass, psi',
            '300',
            'Common practice: spikes above split drums, break case lugs and pop snap rings.',
        ],
        'shift-speed' => [
            'Shift speed where the order does not say, rev/min',
            '5200',
            'Common practice for a street engine; an engine whose curve ends earlier shifts there.',
        ],
        'launch-grade' => [
            'Grade a build must pull away on, percent',
            '12',
            'The grade of the tow-rating test SAE J2807, from memory.',
        ],
        'bench-hours' => ['Bench hours of one day', '8', 'Common practice; turns hours into days on a quote.'],
        'waiting-days' => [
            'Days a rebuild waits beside its bench hours',
            '2',
            'Common practice: the wash, the test cell and the papers.',
        ],
        'shelf-days' => [
            'Days until a unit from the shelf is out',
            '1',
            'Common practice: the papers and the carrier.',
        ],
    ];

    public function up(): void
    {
        if (DB::table('house_rules')->doesntExist()) {
            return; // a new shop gets all its rules when it is set up
        }
        foreach (self::RULES as $code => [$question, $choice, $reason]) {
            DB::table('house_rules')->where('code', $code)->exists() ||
                DB::table('house_rules')->insert([
                    'code' => $code,
                    'question' => $question,
                    'choice' => $choice,
                    'choices' => '[]',
                    'reason' => $reason,
                ]);
        }
    }
};
