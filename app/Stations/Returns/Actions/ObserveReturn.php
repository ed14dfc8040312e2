<?php

namespace App\Stations\Returns\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Stations\Returns\Models\UnitReturn;
use App\Stations\Returns\Queries\VerdictRanking;
use App\Work\Place;
use App\Work\ReadingKind;
use App\Yard\Gatekeeper;
use App\Yard\StationName;

/** What is seen or measured on a returned unit. Hearsay and findings stay apart: the complaint is never overwritten. */
final class ObserveReturn
{
    public function __construct(private readonly Ledger $ledger, private readonly VerdictRanking $rank)
    {
    }

    public function see(UnitReturn $return, string $feature, ?string $value, int $version): void
    {
        Gatekeeper::unchanged($return, $version, 'this return', ['observed' => [$feature => $value]]);
        $this->at($return, $feature, $value);
    }

    /** At the desk, where nobody has another version of the answer open. */
    public function at(UnitReturn $return, string $feature, ?string $value): void
    {
        $this->assertOpen($return);
        $features = array_column($this->rank->model()['features'], null, 'id');
        if (! isset($features[$feature])) {
            throw Refusal::at('/feature', "There is no evidence \"$feature\".");
        }
        if ($value !== null && ! in_array($value, $features[$feature]['values'], true)) {
            throw Refusal::at(
                '/value',
                "\"$value\" is no answer to this; choose one of ".
                    implode(', ', $features[$feature]['values']).
                    '.',
            );
        }
        if ($value === null) {
            OrderedRows::clear($return->observations()->where('feature', $feature));
        } else {
            $return->observations()->updateOrCreate(['feature' => $feature], ['value' => $value]);
        }
        $this->save($return, 'return.observed', ['feature' => $feature, 'value' => $value]);
    }

    /** A measurement on the returned unit, to set against the one of the build. */
    public function measure(UnitReturn $return, ReadingKind $kind, string $code, string $typed, int $version): void
    {
        $this->assertOpen($return);
        Gatekeeper::unchanged($return, $version, 'this return', ['observed' => [$code => $typed]]);
        $place = Place::of($return->build, $kind, $code);
        $reading = TypedQuantity::parse($typed, $kind->quantity(), $place->unit, '/reading');
        if ($reading->in($place->unit) < 0) {
            throw Refusal::at('/reading', 'A reading below zero is not possible here.');
        }
        $return->readings()->updateOrCreate(
            ['kind' => $kind->value, 'place' => $code],
            ['value' => $reading->in($place->unit), 'unit' => $place->unit, 'typed' => $reading->typed],
        );
        $this->save($return, 'return.measured', [
            'kind' => $kind,
            'code' => $code,
            'typed' => $reading->typed,
        ]);
    }

    private function assertOpen(UnitReturn $return): void
    {
        Gatekeeper::at($return->unit, StationName::Returns);
        if ($return->verdict !== null) {
            throw new Refusal('The verdict is already given.', 409);
        }
    }

    /** @param  array<string, mixed>  $event */
    private function save(UnitReturn $return, string $kind, array $event): void
    {
        $return->unsetRelations()->update(['version' => $return->version + 1]);
        $this->ledger->onUnit($return->unit()->firstOrFail(), $kind, $event + ['number' => $return->number]);
    }
}
