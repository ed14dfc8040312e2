<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

/**
 * Applies requires / excludes / omits to a choice of options, with one sentence for each consequence. A wish of the
 * customer displaces what the package brings along; two wishes that exclude each other are a conflict.
 */
final class ApplyRules
{
    /** Where an option comes from; a stronger one displaces a weaker one. */
    private const PACKAGE = 0;

    private const REQUIRED = 1;

    private const ALWAYS = 2;

    private const WISH = 3;

    /** @var array<string, int> chosen option => strength */
    private array $chosen = [];

    /** @var array<string, string> option => sentence */
    private array $added = [];

    /** @var array<string, string> option => sentence */
    private array $removed = [];

    /** @var list<array{options: list<string>, rule: string, explain: string}> */
    private array $conflicts = [];

    /**
     * @param  array<string, array{name: string, why: string, requires: list<string>, excludes: list<string>, omits: list<string>, omitWhy: string}>  $options
     * @param  list<string>  $dropped  package options the customer does not want
     */
    private function __construct(private readonly array $options, private readonly array $dropped)
    {
    }

    /**
     * @param  array<string, array{name: string, why: string, requires: list<string>, excludes: list<string>, omits: list<string>, omitWhy: string}>  $options
     * @param  list<string>  $package  options of the package
     * @param  list<string>  $always  the house list
     * @param  list<string>  $wanted  added by the customer
     * @param  list<string>  $dropped  taken off by the customer
     * @return array{status: 'ok'|'conflict', chosen: list<string>, added: list<array{option: string, because: string}>, removed: list<array{option: string, because: string}>, omitted: list<array{part: string, because: string}>, conflicts: list<array{options: list<string>, rule: string, explain: string}>}
     */
    public static function to(array $options, array $package, array $always, array $wanted, array $dropped): array
    {
        $rules = new self($options, $dropped);
        foreach ([[self::PACKAGE, array_diff($package, $dropped)], [self::ALWAYS, $always], [self::WISH, $wanted]] as [$strength, $codes]) {
            foreach ($codes as $code) {
                $rules->chosen[$code] = $strength;
            }
        }
        $rules->settle();

        return $rules->result();
    }

    /** Repeats until nothing changes; every pass adds or removes an option for good, so it ends. */
    private function settle(): void
    {
        do {
            $changed = false;
            foreach ($this->chosen as $code => $strength) {
                foreach ($this->options[$code]['excludes'] as $other) {
                    $changed = $this->exclude((string) $code, $other) || $changed;
                }
                foreach (array_key_exists($code, $this->chosen) ? $this->options[$code]['requires'] : [] as $needed) {
                    $changed = $this->require((string) $code, $needed, $strength) || $changed;
                }
            }
        } while ($changed);
    }

    private function exclude(string $code, string $other): bool
    {
        if (! isset($this->chosen[$code], $this->chosen[$other])) {
            return false;
        }
        [$loser, $winner] = $this->chosen[$code] >= $this->chosen[$other] ? [$other, $code] : [$code, $other];
        if ($this->chosen[$loser] !== self::PACKAGE) {
            return $this->conflict([$code, $other], 'excludes', "\"{$this->name($code)}\" and \"{$this->name($other)}\" cannot be in one unit: {$this->options[$code]['why']}");
        }
        unset($this->chosen[$loser], $this->added[$loser]);
        $this->removed[$loser] = "Comes out, because \"{$this->name($winner)}\" takes its place.";

        return true;
    }

    private function require(string $code, string $needed, int $strength): bool
    {
        if (isset($this->chosen[$needed])) {
            return false;
        }
        $sentence = "\"{$this->name($code)}\" needs \"{$this->name($needed)}\": {$this->options[$needed]['why']}";
        if (in_array($needed, $this->dropped, true) || isset($this->removed[$needed])) {
            return $this->conflict([$code, $needed], 'requires', $sentence.(isset($this->removed[$needed]) ? ' But that had to come out.' : ' But that was taken off.'));
        }
        $this->chosen[$needed] = $strength === self::PACKAGE ? self::PACKAGE : self::REQUIRED;
        $this->added[$needed] = $sentence;

        return true;
    }

    /** @param  list<string>  $options */
    private function conflict(array $options, string $rule, string $explain): bool
    {
        sort($options);
        foreach ($this->conflicts as $known) {
            if ($known['options'] === $options && $known['rule'] === $rule) {
                return false;
            }
        }
        $this->conflicts[] = ['options' => $options, 'rule' => $rule, 'explain' => $explain];

        return true;
    }

    /** @return array{status: 'ok'|'conflict', chosen: list<string>, added: list<array{option: string, because: string}>, removed: list<array{option: string, because: string}>, omitted: list<array{part: string, because: string}>, conflicts: list<array{options: list<string>, rule: string, explain: string}>} */
    private function result(): array
    {
        $omitted = [];
        foreach ($this->options as $code => $option) {
            foreach (isset($this->chosen[$code]) ? $option['omits'] : [] as $part) {
                $omitted[] = ['part' => $part, 'because' => $option['omitWhy']];
            }
        }

        return [
            'status' => $this->conflicts === [] ? 'ok' : 'conflict',
            'chosen' => array_values(array_filter(array_map(strval(...), array_keys($this->options)), fn (string $code): bool => isset($this->chosen[$code]))),
            'added' => self::sentences($this->added), 'removed' => self::sentences($this->removed), 'omitted' => $omitted, 'conflicts' => $this->conflicts,
        ];
    }

    /**
     * @param  array<string, string>  $because
     * @return list<array{option: string, because: string}>
     */
    private static function sentences(array $because): array
    {
        $out = [];
        foreach ($because as $code => $why) {
            $out[] = ['option' => (string) $code, 'because' => $why];
        }

        return $out;
    }

    private function name(string $code): string
    {
        return $this->options[$code]['name'];
    }
}
