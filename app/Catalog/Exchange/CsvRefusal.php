<?php

namespace App\Catalog\Exchange;

/** A CSV file, line or field that cannot be taken, in one sentence. */
final class CsvRefusal extends \RuntimeException
{
}
