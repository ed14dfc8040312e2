<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

use Yard\Core\Input;

/** One planetary set: simple S ws + R wr = (S+R) wc, or double (two meshed planets) S ws - R wr = (S-R) wc. */
final class PlanetarySet
{
    /** @param  list<int>  $planetTeeth one entry for a simple set, sun side and ring side for a double one, or none */
    private function __construct(
        public readonly string $id,
        public readonly bool $double,
        public readonly string $sun,
        public readonly string $ring,
        public readonly string $carrier,
        public readonly int $sunTeeth,
        public readonly int $ringTeeth,
        public readonly array $planetTeeth,
        public readonly ?int $planets,
    ) {
    }

    /** The same set with another sun. */
    public function withSun(int $teeth): self
    {
        return new self(
            $this->id,
            $this->double,
            $this->sun,
            $this->ring,
            $this->carrier,
            $teeth,
            $this->ringTeeth,
            $this->planetTeeth,
            $this->planets,
        );
    }

    public static function read(Input $in): self
    {
        $double = $in->choice('kind', ['simple', 'double']) === 'double';
        [$sun, $ring, $carrier] = [$in->name('sun'), $in->name('ring'), $in->name('carrier')];
        if (count(array_unique([$sun, $ring, $carrier])) < 3) {
            throw $in->fail('self-loop', 'Sun, ring and carrier of a set must be three different shafts.');
        }
        $sunTeeth = $in->integer('sunTeeth', 1, 10000);
        $ringTeeth = $in->integer('ringTeeth', 1, 10000);
        if ($ringTeeth <= $sunTeeth) {
            throw $in
                ->at('ringTeeth')
                ->fail(
                    'teeth',
                    "The ring gear must have more teeth than the sun inside it ($ringTeeth against $sunTeeth).",
                );
        }
        $planetTeeth = [];
        if ($in->has('planetTeeth')) {
            $teeth = $in->at('planetTeeth');
            if ($double) {
                $planetTeeth = array_map(static fn (Input $t): int => $t->asInteger(1, 10000), $teeth->asList());
                if (count($planetTeeth) !== 2) {
                    throw $teeth->fail('teeth', 'A double set takes two planet tooth counts: sun side, ring side.');
                }
            } else {
                $planetTeeth = [$teeth->asInteger(1, 10000)];
            }
        }

        return new self(
            $in->name('id'),
            $double,
            $sun,
            $ring,
            $carrier,
            $sunTeeth,
            $ringTeeth,
            $planetTeeth,
            $in->has('planets') ? $in->integer('planets', 1, 100) : null,
        );
    }

    /**
     * Willis coefficients of sun, ring and carrier, divided by the ring teeth; their sum is zero. The member torques
     * stand in the same proportion.
     *
     * @return array{float, float, float}
     */
    public function willis(): array
    {
        $s = $this->sunTeeth / $this->ringTeeth;

        return $this->double ? [$s, -1.0, 1.0 - $s] : [$s, 1.0, -1.0 - $s];
    }

    /**
     * What keeps the set from being assembled as described; profile-shifted gears may still work, so these are
     * warnings.
     *
     * @return list<array{code: string, set: string, message: string}>
     */
    public function warnings(): array
    {
        $out = [];
        $s = $this->sunTeeth;
        $r = $this->ringTeeth;
        if (! $this->double && $this->planetTeeth !== [] && $r !== $s + 2 * $this->planetTeeth[0]) {
            $out[] = [
                'code' => 'planet-teeth',
                'set' => $this->id,
                'message' => "Set $this->id: the ring should have sun + 2 x planet = ".
                    ($s + 2 * $this->planetTeeth[0]).
                    " teeth, not $r, unless the gears are profile-shifted.",
            ];
        }
        $sum = $this->double ? $r - $s : $r + $s;
        if ($this->planets !== null && $sum % $this->planets !== 0) {
            $out[] = [
                'code' => 'assembly-condition',
                'set' => $this->id,
                'message' => "Set $this->id: $this->planets planets cannot be spaced equally, because ".
                    ($this->double ? "ring - sun = $sum" : "sun + ring = $sum").
                    " is not a multiple of $this->planets.",
            ];
        }
        if (
            ! $this->double &&
            $this->planets !== null &&
            $this->planets > 1 &&
            $this->planetTeeth !== [] &&
            ($s + $this->planetTeeth[0]) * sin(M_PI / $this->planets) <= $this->planetTeeth[0] + 2
        ) {
            $out[] = [
                'code' => 'planet-clearance',
                'set' => $this->id,
                'message' => "Set $this->id: $this->planets planets of {$this->planetTeeth[0]} teeth would touch each "
                    .'other.',
            ];
        }

        return $out;
    }
}
