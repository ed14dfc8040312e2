<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\BadInput;

/** Particles counted by size as an ISO 4406 code, and what of it is over a target. */
final readonly class PatchCount
{
    public const SIZES = ['um4', 'um6', 'um14'];

    private const TARGET = '~^(?:(\d{1,2}|–|-)/)(\d{1,2})/(\d{1,2})$~u';

    /**
     * @param  array<string, float>  $perMl  by size
     * @param  array<string, int>  $numbers  scale numbers by size
     */
    private function __construct(public array $perMl, public array $numbers)
    {
    }

    /**
     * @param  array<string, float>  $perMl  particles a millilitre of at least 4 (a microscope leaves it out), 6 and 14
     *     micrometres
     *
     * @throws BadInput at the size where it cannot be so
     */
    public static function of(array $perMl): self
    {
        $numbers = [];
        $larger = INF;
        foreach ($perMl as $size => $count) {
            if ($count < 0.0 || ! is_finite($count)) {
                throw new BadInput('range', 'There cannot be fewer particles than none.', "/$size");
            }
            if ($count > $larger) {
                throw new BadInput('range', 'Of larger particles there cannot be more than of smaller.', "/$size");
            }
            $larger = $count;
            $numbers[$size] = Cleanliness::number($count) ??
                throw new BadInput('range', 'This is dirtier than the scale reaches.', "/$size");
        }

        return new self($perMl, $numbers);
    }

    public function code(): string
    {
        return implode('/', [$this->numbers['um4'] ?? '–', $this->numbers['um6'], $this->numbers['um14']]);
    }

    /**
     * @return list<string> sizes of which there are more than the target allows
     *
     * @throws BadInput for what is no code
     */
    public function over(string $target): array
    {
        if (preg_match(self::TARGET, trim($target), $found) !== 1) {
            throw new BadInput('format', 'Write a target as three numbers, 18/16/13, or -/16/13.');
        }
        $over = [];
        foreach (self::SIZES as $n => $size) {
            $most = $found[$n + 1];
            if (isset($this->numbers[$size]) && is_numeric($most) && $this->numbers[$size] > (int) $most) {
                $over[] = $size;
            }
        }

        return $over;
    }
}
