<?php

namespace Tools\StandIns;

use Illuminate\Console\Command;

/**
 * A counting scale that is not there: it types what a scale with a keyboard plug would, the weight and the end of line,
 * as steady as its step and the pieces are.
 */
final class ScaleCommand extends Command
{
    private const SPREAD = 0.003;

    protected $signature = 'stand-in:scale
        {--pieces=0 : how many pieces lie on it}
        {--piece=3.5 : grams of one piece}
        {--basket=0 : grams of the basket}
        {--step=0.1 : what it can tell, grams}
        {--seed=1 : the same seed weighs the same}';

    protected $description = 'What a counting scale would type: the weight of some pieces in a basket';

    public function handle(): int
    {
        $numbers = [];
        foreach (['pieces', 'piece', 'basket', 'step', 'seed'] as $option) {
            $typed = (string) $this->option($option);
            if (! is_numeric($typed) || $typed < 0 || ($option === 'step' && $typed <= 0)) {
                $this->error("--$option must be a number, not \"$typed\".");

                return 2;
            }
            $numbers[$option] = (float) $typed;
        }
        mt_srand((int) $numbers['seed']);
        $grams = $numbers['basket'];
        for ($n = 0; $n < (int) $numbers['pieces']; $n++) {
            $grams += $numbers['piece'] * (1.0 + self::SPREAD * (2.0 * mt_rand() / mt_getrandmax() - 1.0));
        }
        $shown = round($grams / $numbers['step']) * $numbers['step'];
        $this->line(number_format($shown, max(0, (int) ceil(-log10($numbers['step']))), '.', '').' g');

        return 0;
    }
}
