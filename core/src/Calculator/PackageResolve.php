<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Packages\PackageOrder;

/** package.resolve: the cheapest set of options that meets wishes, rules and margins, or what cannot hold together. */
final class PackageResolve implements Calculator
{
    public function calculate(Input $in): array
    {
        return PackageOrder::read($in)->resolve();
    }
}
