<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Calculator\Calculators;

/** What holds for every calculator: a published schema that its example and result obey, and one way to refuse. */
final class ContractTest extends CoreTestCase
{
    public static function calculators(): array
    {
        return array_combine(Calculators::names(), array_map(fn (string $n): array => [$n], Calculators::names()));
    }

    #[DataProvider('calculators')]
    public function test_example_and_result_obey_the_schema(string $name): void
    {
        $schema = json_decode(Calculators::schema($name));
        $result = json_decode((string) json_encode(Calculators::run($name, $schema->example->input)));
        foreach (['input' => $schema->example->input, 'output' => $result] as $side => $document) {
            $check = (new Validator())->validate($document, $schema->{$side});
            $this->assertTrue(
                $check->isValid(),
                "$name $side: ".
                    json_encode($check->error() === null ? null : (new ErrorFormatter())->format($check->error())),
            );
        }
        $this->assertObjectNotHasProperty('ignored', $result);
    }

    #[DataProvider('calculators')]
    public function test_every_missing_required_field_is_named(string $name): void
    {
        $schema = json_decode(Calculators::schema($name), true);
        $required = $schema['input']['required'];
        $this->assertNotEmpty($required);
        foreach ($required as $field) {
            $this->assertRefused(
                $name,
                array_diff_key($schema['example']['input'], [$field => 0]) + ['other' => 1],
                'missing',
                "/$field",
            );
        }
    }

    #[DataProvider('calculators')]
    public function test_fields_of_the_wrong_kind_are_refused(string $name): void
    {
        $example = json_decode(Calculators::schema($name), true)['example']['input'];
        foreach (array_keys($example) as $field) {
            foreach ([null, false, [[]]] as $wrong) {
                if ($wrong === false && is_bool($example[$field])) {
                    continue;
                }
                try {
                    Calculators::call($name, [$field => $wrong] + $example);
                    $this->fail("$name accepted ".json_encode($wrong)." for $field");
                } catch (\Yard\Core\BadInput $e) {
                    $this->assertStringStartsWith("/$field", $e->path);
                }
            }
        }
    }

    #[DataProvider('calculators')]
    public function test_unknown_fields_are_named_not_passed_over(string $name): void
    {
        $example = json_decode(Calculators::schema($name), true)['example']['input'];
        $this->assertContains('/notAField', Calculators::call($name, $example + ['notAField' => 1])['ignored']);
    }

    /** @return array{int, array<string, mixed>|null, string} exit status, decoded output, raw output */
    private function command(string $arguments, string $stdin): array
    {
        $process = proc_open(
            PHP_BINARY.' '.dirname(__DIR__)."/bin/calc $arguments",
            [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']],
            $pipes,
        );
        fwrite($pipes[0], $stdin);
        fclose($pipes[0]);
        $out = (string) stream_get_contents($pipes[1]);
        $this->assertSame('', stream_get_contents($pipes[2]));

        return [proc_close($process), json_decode($out, true), $out];
    }

    public function test_command_line(): void
    {
        [$status, $out] = $this->command('units.convert', '{"value":18,"from":"lbf.ft","to":"N.m"}');
        $this->assertSame(0, $status);
        $this->assertRelative(24.404723069965, $out['value'], 1e-12);
        [$status, , $text] = $this->command('--list', '');
        $this->assertSame([0, Calculators::names()], [$status, explode("\n", trim($text))]);
        [$status, $schema] = $this->command('--schema fit.stack', '');
        $this->assertSame([0, 'fit.stack'], [$status, $schema['name']]);
    }

    public function test_command_line_refuses_with_exit_2(): void
    {
        foreach (
            [
                ['units.convert', '{"value":18,'],
                ['units.convert', '[]'],
                ['units.convert', ''],
                ['no.such', '{}'],
                ['', '{}'],
                ['--schema', ''],
                ['--schema nope', ''],
                ['fit.stack', 'null'],
                ['units.parse', "{\"text\":\"\xff\",\"kind\":\"length\"}"],
                ['units.convert', '{"value":1e999,"from":"in","to":"mm"}'],
            ] as [$arguments, $stdin]
        ) {
            [$status, $out, $text] = $this->command($arguments, $stdin);
            $this->assertSame(2, $status, $text);
            $this->assertSame(['code', 'message', 'path'], array_keys($out['error']), $text);
        }
    }
}
