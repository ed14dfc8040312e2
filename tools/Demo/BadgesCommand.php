<?php

namespace Tools\Demo;

use App\Shop\Models\Person;
use Illuminate\Console\Command;

final class BadgesCommand extends Command
{
    protected $signature = 'demo:badges';

    protected $description = 'Print the badges of the demo shop';

    public function handle(): int
    {
        $digits = Person::query()->pluck('pin_digits', 'badge');
        foreach (DemoShop::read()['people'] as $p) {
            // A shop set up earlier keeps the PINs it had.
            $pin = ($digits[$p['badge']] ?? null) === strlen($p['pin']) ? $p['pin'] : 'as it was';
            $this->line(sprintf('  %-5s %-9s %-18s %s', $p['badge'], $pin, $p['name'], $p['role']));
        }

        return 0;
    }
}
