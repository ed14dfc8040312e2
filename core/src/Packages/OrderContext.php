<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Input;
use Yard\Core\Power\Converter;
use Yard\Core\Power\Engine;
use Yard\Core\Power\StallWindow;
use Yard\Core\Power\TrainDuty;

/** The unit and the duty an order is for: what an option must suit before any rule between options counts. */
final readonly class OrderContext
{
    /** @param  array<string, string>  $neverOmit  part => why it is never left out */
    private function __construct(
        private ?string $variant,
        private ?string $duty,
        private ?TrainDuty $plan,
        private ?string $hub,
        private ?string $lockup,
        private ?StallWindow $window,
        private bool $enforceWindow,
        private array $neverOmit,
    ) {
    }

    /** Reads variant, duty, neverOmit and converterFit of an order. */
    public static function read(Input $in, ?TrainDuty $plan, bool $enforceWindow): self
    {
        $fit = $in->optional('converterFit');

        return new self(
            $in->has('variant') ? $in->string('variant') : null,
            $in->has('duty') ? $in->string('duty') : null,
            $plan,
            $fit?->has('hub') ? $fit->name('hub') : null,
            $fit?->has('lockup') ? $fit->name('lockup') : null,
            StallWindow::read($fit?->optional('stall_rpm')),
            $enforceWindow,
            self::neverOmitted($in->optional('neverOmit')),
        );
    }

    /** @return array<string, string> part => why */
    private static function neverOmitted(?Input $in): array
    {
        $out = [];
        foreach ($in?->asList() ?? [] as $item) {
            $out[$item->name('part')] = $item->name('why');
        }

        return $out;
    }

    /**
     * Why an option cannot stand here; null where it can.
     *
     * @param  list<string>  $omits
     * @return array{sentence: string, otherUnit: bool}|null otherUnit: it is made for another unit,
     *     whatever the order says
     */
    public function refuses(Input $option, string $name, array $omits, ?Converter $converter): ?array
    {
        $otherUnit = self::only($option, 'variantOnly', 'variant', $name, $this->variant);
        $thisOrder = [
            ...self::only($option, 'dutyOnly', 'duty', $name, $this->duty),
            ...$this->overLimit($option->optional('limit'), $name),
            ...$this->leavesOut($omits, $name),
        ];
        $fit = $option->optional('converter');
        if ($fit !== null && $converter !== null) {
            array_push($otherUnit, ...$this->misfits($fit, $name));
            array_push($thisOrder, ...$this->mismatches($converter, $name));
        }

        // One reason is enough to be told; all are read, so that no field counts as passed over.
        return match (true) {
            $otherUnit !== [] => ['sentence' => $otherUnit[0], 'otherUnit' => true],
            $thisOrder !== [] => ['sentence' => $thisOrder[0], 'otherUnit' => false],
            default => null,
        };
    }

    /** @return list<string> */
    private static function only(Input $option, string $rule, string $what, string $name, ?string $here): array
    {
        $allowed = $option->strings($rule);
        if ($allowed === [] || in_array($here, $allowed, true)) {
            return [];
        }
        $for = implode(' or ', $allowed);

        return ["\"$name\" exists only for the $what $for, not for ".($here ?? 'none').'.'];
    }

    /** @return list<string> what the option is not good for in this order */
    private function overLimit(?Input $limit, string $name): array
    {
        $asked = [
            'inputTorque_nm' => [$this->plan?->inputTorque, 'N.m input torque'],
            'inputSpeed_rpm' => [$this->plan?->inputSpeed, 'rev/min shift speed'],
        ];
        $out = [];
        foreach ($asked as $field => [$here, $words]) {
            $most = $limit?->numberIf($field, above: 0.0);
            if ($most !== null && $here !== null && $here > $most) {
                [$good, $has] = [Input::show($most), Input::show($here)];
                $out[] = "\"$name\" is good for $good $words, and this order has $has.";
            }
        }

        return $out;
    }

    /**
     * @param  list<string>  $omits
     * @return list<string>
     */
    private function leavesOut(array $omits, string $name): array
    {
        $out = [];
        foreach (array_intersect($omits, array_map(strval(...), array_keys($this->neverOmit))) as $part) {
            $why = rtrim(lcfirst($this->neverOmit[$part]), '.');
            $out[] = "\"$name\" leaves out $part, which is never left out here: $why.";
        }

        return $out;
    }

    /** @return list<string> what keeps a converter from going into this unit at all */
    private function misfits(Input $fit, string $name): array
    {
        $sentences = [];
        $hub = $fit->has('hub') ? $fit->name('hub') : null;
        if ($hub !== null && $this->hub !== null && $hub !== $this->hub) {
            $sentences[] = "\"$name\" has a hub of $hub, and this unit takes {$this->hub}.";
        }
        $lockups = $fit->strings('lockup');
        if ($lockups !== [] && $this->lockup !== null && ! in_array($this->lockup, $lockups, true)) {
            $sentences[] =
                "\"$name\" has a lock-up for ".
                implode(' or ', $lockups).
                " control, and this unit's is {$this->lockup}.";
        }

        return $sentences;
    }

    /** @return list<string> what keeps a converter from this engine and duty */
    private function mismatches(Converter $converter, string $name): array
    {
        if ($this->window === null || $this->plan === null || ! $this->enforceWindow) {
            return [];
        }
        $stall = $converter->behind($this->plan->engine, 0.0)['engine_rpm'];

        return $this->window->fits($stall)
            ? []
            : ["\"$name\" does not match: ".lcfirst($this->window->says($stall))];
    }

    /** @return array<string, mixed>|null what a converter does behind the engine of this order */
    public function behind(Converter $converter): ?array
    {
        if ($this->plan === null) {
            return null;
        }
        $stall = $converter->behind($this->plan->engine, 0.0);

        return [
            'stall_rpm' => $stall['engine_rpm'],
            'stallTorqueRatio' => $stall['torqueRatio'],
            'stallTurbineTorque_nm' => $stall['turbineTorque_nm'],
            'highestTurbineTorque_nm' => $converter->highestTurbineTorque($this->plan->engine),
        ] +
            ($this->window === null
                ? []
                : [
                    'fits' => $this->window->fits($stall['engine_rpm']),
                    'message' => $this->window->says($stall['engine_rpm']),
                ]);
    }
}
