<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\BadInput;
use Yard\Core\Calculator\Calculators;
use Yard\Core\Input;

/**
 * Every leaf of every calculator's example, one after the other, is replaced by what people and broken programs send.
 * The answer is a result that obeys its schema, or one sentence that points into the input; nothing else may come out.
 */
final class FuzzTest extends CoreTestCase
{
    private const INSTEAD = [
        0,
        -1,
        1,
        2,
        1e-9,
        -0.5,
        1e12,
        -1e300,
        1e308,
        9007199254740993,
        'x',
        '',
        '0.030',
        null,
        true,
        [],
        [[]],
        [1, 2],
        -0.0,
        5e-324,
    ];

    /** Calculators whose time grows with what is asked are tried with fewer values. */
    private const SLOW = [
        'fit.stack' => 7,
        'trace.analyse' => 19,
        'package.resolve' => 3,
        'evidence.reliability' => 5,
    ];

    /** @return array<string, array{string}> */
    public static function calculators(): array
    {
        return array_combine(Calculators::names(), array_map(fn (string $n): array => [$n], Calculators::names()));
    }

    /**
     * @param  list<string|int>  $path
     * @return \Generator<list<string|int>> every place of a decoded document, objects and lists as well as leaves
     */
    private static function places(mixed $node, array $path = []): \Generator
    {
        if ($path !== []) {
            yield $path;
        }
        foreach (is_array($node) || $node instanceof \stdClass ? (array) $node : [] as $key => $child) {
            yield from self::places($child, [...$path, $key]);
        }
    }

    /** @param  list<string|int>  $path */
    private static function put(mixed $document, array $path, mixed $value): mixed
    {
        if ($path === []) {
            return $value;
        }
        $key = array_shift($path);
        if ($document instanceof \stdClass) {
            $copy = clone $document;
            $copy->{$key} = self::put($document->{$key}, $path, $value);

            return $copy;
        }
        $document[$key] = self::put($document[$key], $path, $value);

        return $document;
    }

    /**
     * Whether a pointer (RFC 6901) leads into a document, or to a field that is missing from an object or list that is
     * there.
     */
    private static function leadsInto(mixed $document, string $pointer): bool
    {
        $steps =
            $pointer === ''
                ? []
                : array_map(
                    fn (string $s): string => str_replace(['~1', '~0'], ['/', '~'], $s),
                    explode('/', substr($pointer, 1)),
                );
        foreach ($steps as $n => $step) {
            $fields = is_array($document) || $document instanceof \stdClass ? (array) $document : null;
            if ($fields === null) {
                return false;
            }
            if (! array_key_exists($step, $fields)) {
                return $n === count($steps) - 1;
            }
            $document = $fields[$step];
        }

        return true;
    }

    /** Runs an input; false where it was refused in one sentence that points into it. */
    private function answers(string $name, mixed $input, string $what, Validator $validator, \stdClass $schema): bool
    {
        try {
            $out = Calculators::runOn($name, Input::of(json_decode((string) json_encode($input))));
        } catch (BadInput $e) {
            $this->assertMatchesRegularExpression('/^[\p{Lu}\p{N}"\'(].*[.]$/su', $e->getMessage(), $what);
            $this->assertTrue(self::leadsInto($input, $e->path), "$what: $e->path: {$e->getMessage()}");
            $this->assertLessThan(700, strlen($e->getMessage()), "$what: the sentence is short");

            return false;
        } catch (\Throwable $e) {
            $this->fail(
                "$what: ".$e::class.": {$e->getMessage()} at ".basename($e->getFile()).":{$e->getLine()}",
            );
        }
        $json = json_encode($out, JSON_PARTIAL_OUTPUT_ON_ERROR);
        $this->assertSame(JSON_ERROR_NONE, json_last_error(), "$what: the result has no numbers that are none");
        $check = $validator->validate(json_decode((string) $json), $schema->output);
        $this->assertTrue(
            $check->isValid(),
            "$what: the result leaves its schema: ".
                json_encode($check->error()?->message()).
                ' at '.
                json_encode($check->error()?->data()->fullPath()),
        );

        return true;
    }

    #[DataProvider('calculators')]
    public function test_whatever_stands_in_one_place_the_answer_is_a_result_or_one_sentence(string $name): void
    {
        $schema = json_decode(Calculators::schema($name));
        $validator = new Validator();
        [$refused, $n] = [0, 0];
        foreach (self::places($schema->example->input) as $path) {
            foreach (self::INSTEAD as $value) {
                if ($n++ % (self::SLOW[$name] ?? 1) === 0) {
                    $refused += $this->answers(
                        $name,
                        self::put($schema->example->input, $path, $value),
                        "$name with ".json_encode($value).' at /'.implode('/', $path),
                        $validator,
                        $schema,
                    )
                        ? 0
                        : 1;
                }
            }
        }
        $this->assertGreaterThan(0, $refused, 'bad input was met');
    }

    #[DataProvider('calculators')]
    public function test_a_hundred_kilobytes_in_one_place_are_refused_in_one_short_sentence(string $name): void
    {
        $schema = json_decode(Calculators::schema($name));
        $validator = new Validator();
        foreach (self::places($schema->example->input) as $path) {
            $input = self::put($schema->example->input, $path, str_repeat('x', 100_000));
            $this->assertFalse($this->answers($name, $input, "$name at /".implode('/', $path), $validator, $schema));
        }
        $input = (object) ([str_repeat('x', 100_000) => 1] + (array) $schema->example->input);
        $this->assertFalse($this->answers($name, $input, "$name with a long name", $validator, $schema));
    }

    #[DataProvider('calculators')]
    public function test_several_places_at_once_that_still_make_sense_alone(string $name): void
    {
        // Numbers are only stretched, so that more of them get past the first check and meet each other.
        mt_srand(crc32($name));
        $schema = json_decode(Calculators::schema($name));
        $validator = new Validator();
        $numbers = array_values(
            array_filter(
                iterator_to_array(self::places($schema->example->input), false),
                fn (array $path): bool => is_int(self::at($schema->example->input, $path)) ||
                    is_float(self::at($schema->example->input, $path)),
            ),
        );
        if ($numbers === []) {
            $this->expectNotToPerformAssertions();

            return;
        }
        for ($case = 0; $case < intdiv(150, self::SLOW[$name] ?? 1); $case++) {
            $input = $schema->example->input;
            $what = [];
            for ($k = mt_rand(1, 4); $k > 0; $k--) {
                $path = $numbers[mt_rand(0, count($numbers) - 1)];
                $old = self::at($input, $path);
                $new = is_int($old)
                    ? (int) round(($old * mt_rand(0, 300)) / 100)
                    : ($old * mt_rand(-100, 1000)) / 300;
                $what[] = json_encode($new).' at /'.implode('/', $path);
                $input = self::put($input, $path, $new);
            }
            $this->answers($name, $input, "$name with ".implode(', ', $what), $validator, $schema);
        }
    }

    /** @param  list<string|int>  $path */
    private static function at(mixed $document, array $path): mixed
    {
        foreach ($path as $key) {
            $document = ((array) $document)[$key];
        }

        return $document;
    }
}
