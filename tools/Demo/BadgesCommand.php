<?php

namespace Tools\Demo;

use Illuminate\Console\Command;

final class BadgesCommand extends Command
{
    protected $signature = 'demo:badges';

    protected $description = 'Print the badges of the demo shop';

    public function handle(): int
    {
        foreach (DemoShop::read()['people'] as $p) {
            $this->line(sprintf('  %-5s %-6s %-18s %s', $p['badge'], $p['pin'], $p['name'], $p['role']));
        }

        return 0;
    }
}
