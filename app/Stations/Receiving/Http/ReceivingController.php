<?php

namespace App\Stations\Receiving\Http;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Part;
use App\Catalog\Models\Vocabulary;
use App\Catalog\Read\FamilyOutline;
use App\Money\CoreState;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Stations\Receiving\Actions\ReceiveCore;
use App\Stations\Receiving\Actions\ReviseIntake;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\JsonResponse;
use Yard\Core\Credit\CreditLine;
use Yard\Core\Credit\Grade;

final class ReceivingController
{
    public function form(): JsonResponse
    {
        $families = Family::query()->orderBy('code')->get();
        $listed = self::listing($families);
        // What can be seen with the unit standing there; the rest is asked at the identification desk.
        $features = FamilySpec::query()
            ->whereIn('family_id', $families->modelKeys())
            ->where('kind', 'feature')
            ->where('body', 'like', '%"where":"outside"%')
            ->orderBy('position')
            ->get(['family_id', 'code', 'name', 'body'])
            ->groupBy('family_id');

        return response()->json([
            'jobTypes' => JobType::query()
                ->orderBy('id')
                ->get(['code', 'name', 'note', 'route']),
            'families' => $families->map(
                fn (Family $f) => [
                    'code' => $f->code,
                    'name' => $f->name,
                    'outsideParts' => $listed($f->body['outsideParts']),
                    'hardParts' => $listed($f->body['hardParts']),
                    'outline' => FamilyOutline::of($f),
                    'features' => ($features[$f->id] ?? collect())->map(self::feature(...))->values(),
                ],
            ),
            'clues' => Vocabulary::body('intake-clues')->groups,
            'grades' => Grade::letters(),
            'nextTag' => self::nextTag(),
        ]);
    }

    /**
     * @param  Collection<int, Family>  $families
     * @return \Closure(list<string>): list<array{number: string, name: string, price: float}> of parts there are
     */
    private static function listing(Collection $families): \Closure
    {
        $numbers = $families->flatMap(fn (Family $f) => [...$f->body['outsideParts'], ...$f->body['hardParts']]);
        $parts = Part::query()
            ->whereIn('number', $numbers->unique())
            ->toBase()
            ->get(['number', 'name', 'price'])
            ->keyBy('number')
            ->all();

        return fn (array $asked) => array_map(
            fn (string $n) => ['number' => $n, 'name' => $parts[$n]->name, 'price' => (float) $parts[$n]->price],
            array_values(array_filter($asked, fn (string $n) => isset($parts[$n]))),
        );
    }

    /** @return array<string, mixed> */
    private static function feature(FamilySpec $s): array
    {
        return [
            'code' => $s->code,
            'name' => $s->name,
            'how' => $s->body['how'] ?? '',
            'kind' => $s->body['kind'] ?? 'choice',
            'values' => $s->body['values'] ?? [],
            'unit' => $s->body['unit'] ?? null,
        ];
    }

    public function credit(CreditQuestionRequest $request, CreditPrice $credit, GradeProposal $grade): JsonResponse
    {
        $in = $request->validated();
        $family = Family::query()
            ->where('code', $in['family'] ?? '')
            ->value('id');
        $core = new CoreState(
            null,
            $family,
            $in['missing'] ?? [],
            $in['failedHard'] ?? [],
            (float) ($in['repairHours'] ?? 0),
            $in['flags'] ?? [],
        );
        $proposed = $grade->of($core);
        $price = $credit->of($core, Grade::from($in['grade'] ?? $proposed->grade->value));

        return response()->json([
            'credit' => $price->amount(),
            'lines' => array_map(fn (CreditLine $l) => $l->toArray(), $price->lines),
            'coreCharge' => $price->linesOf('core-charge')[0]->cents / 100,
            'proposedGrade' => $proposed->grade->value,
            'proposedReason' => $proposed->reason,
        ]);
    }

    public function store(ReceiveCoreRequest $request, ReceiveCore $action, RouteCard $card): JsonResponse
    {
        $in = $request->validated();

        return response()->json($card->of($action->receive($in, $request->person()), ['receiving']), 201);
    }

    public function revise(
        ReviseIntakeRequest $request,
        string $number,
        ReviseIntake $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();

        return response()->json(
            $card->of($action->revise(Unit::byNumber($number), $in, $request->person()), ['receiving']),
        );
    }

    private static function nextTag(): string
    {
        $last = Unit::query()->where('core_tag', 'like', 'C-%')->orderByDesc('id')->value('core_tag');

        return 'C-'.str_pad((string) ((int) preg_replace('/\D/', '', (string) $last) + 1), 4, '0', STR_PAD_LEFT);
    }
}
