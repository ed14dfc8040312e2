<?php

namespace App\Catalog;

/** A CSV file, line or field that cannot be taken, in one sentence. */
final class CsvRefused extends \RuntimeException
{
}
