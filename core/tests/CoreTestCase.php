<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\TestCase;
use Yard\Core\BadInput;
use Yard\Core\Calculator\Calculators;

abstract class CoreTestCase extends TestCase
{
    /**
     * Runs a calculator through JSON, as its callers do, and returns plain arrays.
     *
     * @param  array<string, mixed>  $input
     * @return array<string, mixed>
     */
    protected function calc(string $name, array $input): array
    {
        /** @var array<string, mixed> $out */
        $out = json_decode((string) json_encode(Calculators::call($name, $input)), true);

        return $out;
    }

    /** @param  array<string, mixed>  $input */
    protected function assertRefused(string $name, array $input, string $code, string $path): BadInput
    {
        try {
            $out = Calculators::call($name, $input);
        } catch (BadInput $e) {
            $this->assertSame($code, $e->errorCode, $e->getMessage());
            $this->assertSame($path, $e->path, $e->getMessage());
            $this->assertStringEndsWith('.', $e->getMessage());

            return $e;
        }
        $this->fail("$name accepted bad input: ".json_encode($out));
    }

    protected function assertRelative(
        float $expected,
        mixed $actual,
        float $tolerance = 1e-9,
        string $message = '',
    ): void {
        $this->assertIsNumeric($actual, $message);
        $this->assertEqualsWithDelta(
            $expected,
            (float) $actual,
            max(abs($expected) * $tolerance, $expected === 0.0 ? 1e-9 : 0.0),
            $message,
        );
    }

    /** @return list<float> numbers R prints; the test is skipped where R is not installed */
    protected function r(string $code): array
    {
        if (trim((string) shell_exec('command -v Rscript')) === '') {
            $this->markTestSkipped('R is not installed.');
        }

        return array_map(
            floatval(...),
            preg_split(
                '/\s+/',
                trim(
                    (string) shell_exec(
                        'Rscript --vanilla -e '.escapeshellarg("cat(format($code, digits = 15))").' 2>/dev/null',
                    ),
                ),
            ) ?:
            [],
        );
    }
}
