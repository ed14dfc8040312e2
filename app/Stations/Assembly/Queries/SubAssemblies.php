<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\HouseRules;
use App\Shop\Queries\PeopleNames;
use App\Stations\Assembly\Models\SignOff;
use App\Work\OperationSpec;
use App\Work\Queries\BenchWork;
use Illuminate\Support\Carbon;

/** Parts of a unit that are built by themselves, and who signed for each; undone work takes the signature away. */
final class SubAssemblies
{
    public function __construct(
        private readonly HouseRules $rules,
        private readonly PeopleNames $names,
        private readonly AssemblyRecords $records,
    ) {
    }

    /** What a signature for one is called among the signatures of a build. */
    public static function what(string $name): string
    {
        return "sub:$name";
    }

    /**
     * @return list<array{name: string, operations: list<string>, left: list<string>, by: string|null, at: string|null}>
     *     none where the shop signs for the unit only; left: operations that are not done
     */
    public function of(BenchWork $work): array
    {
        if ($this->rules->choice('sub-sign-offs') !== 'each') {
            return [];
        }
        $groups = [];
        foreach ($work->operations as $o) {
            isset($o->body['sub']) && $groups[$o->body['sub']][] = $o;
        }
        $signed = $groups === [] ? [] : $this->records->of($work)->signOffs->keyBy('what')->all();

        return array_map(
            fn (string $name): array => $this->one($work, $name, $groups[$name], $signed[self::what($name)] ?? null),
            array_keys($groups),
        );
    }

    /**
     * @param  non-empty-list<OperationSpec>  $operations
     * @return array{name: string, operations: list<string>, left: list<string>, by: string|null, at: string|null}
     */
    private function one(BenchWork $work, string $name, array $operations, ?SignOff $signed): array
    {
        $left = array_filter($operations, fn (OperationSpec $o) => ! $work->isDone($o->code));
        $last = max(array_map(
            fn (OperationSpec $o): ?Carbon => ($work->rows[$o->code] ?? null)?->done_at,
            $operations,
        ));
        $stands = $signed !== null && $left === [] && $signed->signed_at >= $last;

        return [
            'name' => $name,
            'operations' => array_column($operations, 'name'),
            'left' => array_values(array_map(fn (OperationSpec $o) => $o->name, $left)),
            'by' => $stands ? $this->names->of($signed->signed_by) : null,
            'at' => $stands ? $signed->signed_at->toIso8601ZuluString() : null,
        ];
    }
}
