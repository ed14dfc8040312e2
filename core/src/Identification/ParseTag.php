<?php

declare(strict_types=1);

namespace Yard\Core\Identification;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Reads a stamped tag code against the patterns of the families. A pattern is a regular expression with named groups:
 * "letter" looks up the variants, "year" is one digit (any decade) or two digits (any century). All candidates come
 * back, never one guess: tags are swapped, and a year digit repeats each decade.
 */
final class ParseTag implements Calculator
{
    private const LONGEST = 40;

    private const FIRST_YEAR = 1950;

    public function calculate(Input $in): array
    {
        $typed = $in->at('text');
        $text = strtoupper((string) preg_replace('/\s+/', '', $typed->asString()));
        if ($text === '' || strlen($text) > self::LONGEST) {
            throw $typed->fail('length', 'A tag code has 1 to '.self::LONGEST.' characters.');
        }
        $today = $in->integer('thisYear', self::FIRST_YEAR, 2200);
        $years = [];
        foreach ($in->map('variants') as $code => $variant) {
            $years[(string) $code] = [
                $variant->integer('fromYear', 1900, 2200),
                $variant->integer('toYear', 1900, 2200),
            ];
        }
        $candidates = [];
        foreach ($in->list('patterns') as $pattern) {
            $match = self::match($pattern->at('pattern'), $text);
            if ($match === null) {
                continue;
            }
            $letters = [];
            foreach ($pattern->map('letters') as $letter => $codes) {
                foreach ($codes->asList() as $code) {
                    isset($years[$code->asString()]) ||
                        throw $code->fail('unknown-variant', "There is no variant \"{$code->asString()}\".");
                    $letters[strtoupper((string) $letter)][] = $code->asString();
                }
            }
            foreach ($letters[$match['letter'] ?? ''] ?? [] as $variant) {
                $possible = isset($match['year']) ? self::years($match['year'], $today) : [];
                [$from, $to] = $years[$variant];
                $inside = array_values(array_filter($possible, static fn (int $y): bool => $y >= $from && $y <= $to));
                $candidates[] = [
                    'family' => $pattern->name('family'),
                    'variant' => $variant,
                    'years' => $inside === [] ? $possible : $inside,
                    'yearFits' => $possible === [] || $inside !== [],
                    'groups' => (object) $match,
                    'note' => $pattern->has('note') ? $pattern->string('note') : '',
                ];
            }
        }
        // A candidate whose year falls into the time the variant was made speaks louder than one whose does not.
        usort($candidates, static fn (array $a, array $b): int => $b['yearFits'] <=> $a['yearFits']);

        return ['text' => $text, 'candidates' => $candidates];
    }

    /** @return array<string, string>|null named groups, null when the text does not match */
    private static function match(Input $pattern, string $text): ?array
    {
        $found = @preg_match('/'.str_replace('/', '\/', $pattern->asString()).'/u', $text, $groups);
        if ($found === false) {
            throw $pattern->fail('pattern', 'This is no pattern: '.lcfirst(preg_last_error_msg()).'.');
        }
        if ($found === 0) {
            return null;
        }
        $named = [];
        foreach ($groups as $name => $value) {
            is_string($name) && ($named[$name] = $value);
        }

        return $named;
    }

    /** @return list<int> every year the digits can mean, oldest first */
    private static function years(string $digits, int $today): array
    {
        $span = 10 ** strlen($digits);
        $years = [];
        for ($y = self::FIRST_YEAR; $y <= $today; $y++) {
            if (ctype_digit($digits) && $y % $span === (int) $digits) {
                $years[] = $y;
            }
        }

        return $years;
    }
}
