<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\ExtraWork;
use App\Work\Generation;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** The customer is asked about work beyond the order, and what they said is kept. */
final class AskForExtraWork
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function ask(Unit $unit, string $text, float $hours, float $price, Person $by): ExtraWork
    {
        Gatekeeper::at($unit, StationName::Teardown, StationName::Assembly, StationName::Returns);
        $asked = ['text' => $text, 'hours' => $hours, 'price' => $price];
        $work = ExtraWork::create($asked + [
            'unit_id' => $unit->id,
            'generation' => Generation::of($unit, 'teardown'),
            'asked_by' => $by->id,
            'asked_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'extra-work.asked', $asked);

        return $work;
    }

    /** @param  array<string, mixed>  $said  answer, answeredBy, how */
    public function answer(Unit $unit, int $id, array $said, Person $by): void
    {
        $work =
            ExtraWork::query()->where('unit_id', $unit->id)->whereKey($id)->first() ??
            throw new Refusal('There is no such question on this unit.', 404);
        if ($work->answer !== null) {
            throw new Refusal("It is answered already: $work->answer by $work->answered_by.", 409);
        }
        $work->update([
            'answer' => $said['answer'],
            'answered_by' => $said['answeredBy'],
            'how' => $said['how'],
            'recorded_by' => $by->id,
            'recorded_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'extra-work.answered', ['text' => $work->text] + $said);
    }
}
