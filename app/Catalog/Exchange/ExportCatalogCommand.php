<?php

namespace App\Catalog\Exchange;

use App\Kernel\Option;
use Illuminate\Console\Command;

final class ExportCatalogCommand extends Command
{
    protected $signature = 'catalog:export {file : where to write the pack} {--name=Catalog of the house} {--edition= '
        .': defaults to today}';

    protected $description = 'Write the whole catalog as a pack';

    public function handle(ExportPack $action): int
    {
        $file = Option::text($this->argument('file'));
        if (
            @file_put_contents(
                $file,
                ExportPack::encode(
                    $action->export(
                        Option::text($this->option('name')),
                        Option::text($this->option('edition')) ?: now()->format('Y-m-d'),
                    ),
                ),
            ) === false
        ) {
            $this->error("The file $file cannot be written.");

            return 2;
        }
        $this->info("The catalog stands in $file.");

        return 0;
    }
}
