<?php

namespace App\Catalog\Exchange;

use App\Kernel\Option;
use Illuminate\Console\Command;

final class ImportCatalogCommand extends Command
{
    protected $signature = 'catalog:import {file : a catalog pack, see docs/formats/catalog-pack.md}';

    protected $description = 'Import a catalog pack, all or nothing';

    public function handle(ImportPack $action): int
    {
        $file = Option::text($this->argument('file'));
        $json = @file_get_contents($file);
        if ($json === false) {
            $this->error("The file $file cannot be read.");

            return 2;
        }
        try {
            $counts = $action->import(
                $json,
                fn (string $what, int $done, int $of) => $this->line("$what: $done of $of"),
            );
        } catch (BadPack $e) {
            foreach ($e->errors as $error) {
                $this->error(($error['pointer'] === '' ? 'The pack' : $error['pointer']).': '.$error['detail']);
            }
            $this->error('Nothing was imported.');

            return 2;
        }
        $this->info(
            'Imported: '.
                array_sum(array_column($counts, 'new')).
                ' new, '.
                array_sum(array_column($counts, 'changed')).
                ' changed, '.
                array_sum(array_column($counts, 'same')).
                ' as they were.',
        );

        return 0;
    }
}
