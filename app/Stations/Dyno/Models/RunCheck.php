<?php

namespace App\Stations\Dyno\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * One measured value of a run against its limit. What could not be measured has no value and never passes.
 *
 * @property int $id
 * @property int $run_id
 * @property int $position
 * @property string $name
 * @property string $place
 * @property float|null $value
 * @property string $unit
 * @property float|null $least
 * @property float|null $most
 * @property string|null $against
 * @property bool $pass
 */
final class RunCheck extends AccountedRecord
{
    protected $table = 'run_checks';

    protected $fillable = ['run_id', 'position', 'name', 'place', 'value', 'unit', 'least', 'most', 'against', 'pass'];

    protected $casts = ['pass' => 'boolean', 'value' => 'float', 'least' => 'float', 'most' => 'float'];

    /**
     * @return array{check: string, value: float|null, unit: string, min: float|null, max: float|null, pass: bool,
     *     where: string, against: string|null}
     */
    public function shown(): array
    {
        return [
            'check' => $this->name,
            'value' => $this->value,
            'unit' => $this->unit,
            'min' => $this->least,
            'max' => $this->most,
            'pass' => $this->pass,
            'where' => $this->place,
            'against' => $this->against,
        ];
    }
}
