<?php

namespace App\Catalog\Models;

use App\Catalog\Kept\KeptQuery;
use App\Kernel\Record;

/** A row of the catalog: read often, and changed with an event in the catalog's stream of the ledger. */
abstract class CatalogRecord extends Record
{
    protected function newBaseQueryBuilder()
    {
        $connection = $this->getConnection();

        return $connection->getName() === config('database.default')
            ? new KeptQuery($connection, $connection->getQueryGrammar(), $connection->getPostProcessor())
            : $connection->query();
    }
}
