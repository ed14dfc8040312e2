<?php

declare(strict_types=1);

namespace Yard\Core\Inspection;

/**
 * A pack laid out on the bench, rightly or with one thing wrong, to practise on: what is missing, what lies the wrong
 * way round. The same seed is always the same pack.
 */
final readonly class PackDeal
{
    /** What may be wrong, and what it does (common practice, no source). */
    public const WRONG = [
        'right' => 'It is built as it should be.',
        'friction-missing' => 'A friction plate is missing: two steels lie on each other, and the pack holds less.',
        'steel-missing' => 'A steel is missing: two frictions rub on each other and nothing takes their heat.',
        'swapped' => 'A steel and a friction are swapped: each lies on its own kind, and both pairs burn.',
        'wave-missing' => 'The wave plate is missing: the pack is loose and grabs.',
        'wave-wrong-end' => 'The wave plate lies at the wrong end: it cushions nothing and cuts into the end plate.',
        'end-inside' => 'The end plate lies against the piston: the last friction rubs on the ring.',
    ];

    private const DIGITS = 13; // of a hash, in 16s: 52 bits

    /** @var list<string> wave, steel, friction, end, ring, from the piston outwards */
    public array $stack;

    public string $wrong;

    /** @param  int  $pairs  of steel and friction plates, two at least */
    public function __construct(int $pairs, private bool $wave, private bool $end, private int $seed)
    {
        $choices = $this->choices();
        $this->wrong = $choices[$this->drawn('what', count($choices))];
        $body = [];
        for ($n = 0; $n < $pairs; $n++) {
            array_push($body, 'steel', 'friction');
        }
        $this->stack = [...$this->around($this->spoilt($body)), 'ring'];
    }

    /** @return list<string> what may be said of this pack */
    public function choices(): array
    {
        $cannot = [
            ...($this->wave ? [] : ['wave-missing', 'wave-wrong-end']),
            ...($this->end ? [] : ['end-inside']),
        ];

        return array_values(array_diff(array_keys(self::WRONG), $cannot));
    }

    /**
     * @param  list<string>  $body
     * @return list<string>
     */
    private function spoilt(array $body): array
    {
        $pairs = intdiv(count($body), 2);
        $at = $this->drawn('where', $pairs - 1);
        match ($this->wrong) {
            'friction-missing' => array_splice($body, 2 * $at + 1, 1),
            // Not the first: a steel always lies on the piston.
            'steel-missing' => array_splice($body, 2 * $at + 2, 1),
            'swapped' => array_splice($body, 2 * $at + 1, 2, ['steel', 'friction']),
            default => [],
        };

        return $body;
    }

    /**
     * @param  list<string>  $body
     * @return list<string>
     */
    private function around(array $body): array
    {
        $wave = $this->wave && $this->wrong !== 'wave-missing' ? ['wave'] : [];
        $end = $this->end ? ['end'] : [];

        return match ($this->wrong) {
            'wave-wrong-end' => [...$body, ...$wave, ...$end],
            'end-inside' => [...$end, ...$wave, ...$body],
            default => [...$wave, ...$body, ...$end],
        };
    }

    private function drawn(string $of, int $below): int
    {
        $share = hexdec(substr(hash('sha256', "$this->seed $of"), 0, self::DIGITS)) / 16 ** self::DIGITS;

        return (int) floor($share * $below);
    }
}
