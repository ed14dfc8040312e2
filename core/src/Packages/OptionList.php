<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** The options of a catalog, read as a whole: their rules name each other. */
final class OptionList
{
    /**
     * @param  list<Input>  $items
     * @return array<string, CatalogOption>
     */
    public static function read(array $items, OrderContext $context): array
    {
        $options = [];
        foreach ($items as $item) {
            $option = CatalogOption::read($item, $context);
            isset($options[$option->code]) &&
                throw $item->at('code')->fail('duplicate', "The option \"$option->code\" is listed twice.");
            $options[$option->code] = $option;
        }
        foreach (array_values($options) as $n => $option) {
            $items[$n]->within(static fn () => self::checkRules($option, $options));
        }

        return $options;
    }

    /**
     * @param  array<string, CatalogOption>  $options
     * @return list<string> names of options there are
     */
    public static function names(?Input $in, array $options): array
    {
        return array_map(static function (Input $item) use ($options): string {
            isset($options[$item->asString()]) ||
                throw $item->fail('unknown-option', "There is no option \"{$item->asString()}\".");

            return $item->asString();
        }, $in?->asList() ?? []);
    }

    /** @param  array<string, CatalogOption>  $options */
    private static function checkRules(CatalogOption $option, array $options): void
    {
        $rules = ['requires' => $option->requires, 'excludes' => $option->excludes];
        foreach ($option->requiresAny as $n => $any) {
            $rules["requiresAny/$n"] = $any;
        }
        foreach ($rules as $rule => $others) {
            foreach ($others as $k => $other) {
                isset($options[$other]) ||
                    throw new BadInput('unknown-option', "There is no option \"$other\".", "/$rule/$k");
                if ($other === $option->code && isset(['requires' => 1, 'excludes' => 1][$rule])) {
                    $verb = $rule === 'requires' ? 'require' : 'exclude';
                    throw new BadInput('self', "\"$other\" cannot $verb itself.", "/$rule/$k");
                }
            }
        }
    }

    /**
     * Requirements may not run in a circle.
     *
     * @param  array<string, CatalogOption>  $options
     */
    public static function assertNoCircle(array $options): void
    {
        $state = [];
        /** @var array<string, string> $state */
        $visit = static function (string $code, string ...$way) use (&$visit, &$state, $options): void {
            $way = [...array_values($way), $code];
            $state[$code] = 'open';
            foreach ($options[$code]->requires as $next) {
                if (in_array($code, $options[$next]->requires, true)) {
                    continue; // two that travel together require each other: a pair, not a circle
                }
                if (($state[$next] ?? '') === 'open') {
                    $circle = [...array_slice($way, (int) array_search($next, $way, true)), $next];
                    throw new BadInput(
                        'cycle',
                        'The requirements run in a circle: '.implode(' needs ', $circle).'.',
                        '/options',
                    );
                }
                isset($state[$next]) || $visit($next, ...$way);
            }
            $state[$code] = 'done';
        };
        foreach (array_keys($options) as $code) {
            isset($state[$code]) || $visit((string) $code);
        }
    }
}
