<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

use Yard\Core\Input;

/** A clutch (shaft to shaft), brake (shaft to case) or one-way clutch. */
final class Element
{
    /** @param  'negative'|'positive'|null  $locks sign of wa - wb a one-way clutch refuses */
    private function __construct(
        public readonly string $id,
        public readonly string $kind,
        public readonly string $a,
        public readonly string $b,
        public readonly ?string $locks,
    ) {
    }

    public static function read(Input $in): self
    {
        $kind = $in->choice('kind', ['clutch', 'brake', 'one-way']);
        [$a, $b] = [$in->name('a'), $in->name('b')];
        if ($a === $b) {
            throw $in->fail('self-loop', "The element ties the shaft \"$a\" to itself.");
        }
        if ($kind === 'brake' && $a !== Train::CASE && $b !== Train::CASE) {
            throw $in->fail('brake', 'A brake ties a shaft to the case: one side must be "case".');
        }
        $locks = $in->has('locks') ? $in->choice('locks', ['negative', 'positive']) : null;
        if ($locks !== null && $kind !== 'one-way') {
            throw $in->at('locks')->fail('locks', 'Only a one-way element has a locking direction.');
        }
        /** @var 'negative'|'positive'|null $locks */

        return new self($in->name('id'), $kind, $a, $b, $locks);
    }

    /** The same one-way clutch built in the wrong way round. */
    public function reversed(): self
    {
        return new self($this->id, $this->kind, $this->a, $this->b, match ($this->locks) {
            'negative' => 'positive',
            'positive' => 'negative',
            default => null,
        });
    }

    /**
     * Whether a slip wa - wb, or a torque on a, of this sign is one the element cannot have (slip) or must have
     * (torque).
     */
    public function refuses(float $slip): bool
    {
        return $this->locks === 'negative' ? $slip < -1e-9 : $this->locks === 'positive' && $slip > 1e-9;
    }

    /** A clutch that refuses wa < wb can only push a forward: its torque on a is never negative. */
    public function canDeliver(float $torqueOnA): bool
    {
        return $this->locks === 'negative' ? $torqueOnA >= -1e-9 : $this->locks !== 'positive' || $torqueOnA <= 1e-9;
    }
}
