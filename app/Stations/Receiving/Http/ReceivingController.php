<?php

namespace App\Stations\Receiving\Http;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Part;
use App\Catalog\Models\Vocabulary;
use App\Money\Actions\ReviseCredit;
use App\Money\Queries\CoreBalance;
use App\Money\Queries\CreditPrice;
use App\Shop\Models\Customer;
use App\Stations\Receiving\Actions\FillTray;
use App\Stations\Receiving\Actions\ReceiveCore;
use App\Stations\Receiving\Actions\ReviseIntake;
use App\Stations\Receiving\Queries\GradeProposal;
use App\Yard\Actions\AttachPhoto;
use App\Yard\Actions\LiftHold;
use App\Yard\Actions\PlaceHold;
use App\Yard\Models\Hold;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Yard\Core\Credit\CoreCredit;

final class ReceivingController
{
    private const INTAKE = [
        'jobType' => 'required|string|max:40',
        'ownership' => 'required|in:exchange,customer',
        'customer' => 'nullable|string|max:20',
        'family' => 'nullable|string|max:40',
        'rack' => 'nullable|string|max:20',
        'vehicle' => 'nullable|string|max:120',
        'vin' => 'nullable|string|max:40',
        'odometer' => 'nullable|string|max:30',
        'engine' => 'nullable|string|max:60',
        'complaint' => 'nullable|string|max:2000',
        'codes' => 'array|max:40',
        'codes.*' => 'string|max:20',
        'sender' => 'nullable|in:own,shop',
        'senderDiagnosis' => 'nullable|string|max:2000',
        'clues' => 'array|max:40',
        'clues.*' => 'string|max:120',
        'missing' => 'array|max:60',
        'missing.*.part' => 'required|string|max:40',
        'missing.*.count' => 'integer|min:1|max:99',
        'failedHard' => 'array|max:60',
        'failedHard.*.part' => 'required|string|max:40',
        'repairHours' => 'nullable|numeric|min:0|max:200',
        'grade' => 'nullable|in:A,B,C,D,X',
        'flags' => 'array|max:4',
        'flags.*' => 'in:caseBroken,wrongUnit',
        'damage' => 'array|max:30',
        'damage.*.place' => 'required|string|max:60',
        'damage.*.what' => 'required|string|max:160',
        'tagCode' => 'nullable|string|max:40',
        'pallet' => 'nullable|string|max:20',
        'observed' => 'array|max:40',
        'observed.*' => 'string|max:120',
        'gradeReason' => 'nullable|string|max:300',
        'weight' => 'nullable|string|max:30',
        'note' => 'nullable|string|max:2000',
        'promisedOn' => 'nullable|date_format:Y-m-d',
        'converter' => 'nullable|array',
        'converter.serial' => 'nullable|string|max:40',
        'converter.state' => 'nullable|in:core,checked,contaminated,exchanged',
        'converter.stallClass' => 'nullable|string|max:40',
        'converter.lockup' => 'nullable|string|max:40',
        'converter.hub' => 'nullable|string|max:40',
        'converter.coreValue' => 'nullable|numeric|min:0|max:10000',
        'converter.note' => 'nullable|string|max:300',
    ];

    public function form(): JsonResponse
    {
        $families = Family::query()->orderBy('code')->get();
        $parts = Part::query()
            ->whereIn(
                'number',
                $families
                    ->flatMap(fn (Family $f) => [...$f->body['outsideParts'], ...$f->body['hardParts']])
                    ->unique(),
            )
            ->get()
            ->keyBy('number');
        $listed = fn (array $numbers) => array_values(
            array_map(
                fn (string $n) => ['number' => $n, 'name' => $parts[$n]->name, 'price' => (float) $parts[$n]->price],
                array_filter($numbers, fn (string $n) => isset($parts[$n])),
            ),
        );
        // What can be seen with the unit standing there; the rest is asked at the identification desk.
        $features = FamilySpec::query()
            ->where('kind', 'feature')
            ->where('body', 'like', '%"where":"outside"%')
            ->orderBy('position')
            ->get()
            ->groupBy('family_id');

        return response()->json([
            'jobTypes' => JobType::query()
                ->orderBy('id')
                ->get(['code', 'name', 'note', 'route']),
            'customers' => Customer::query()
                ->orderBy('name')
                ->limit(500)
                ->get(['code', 'name', 'kind', 'city']),
            'families' => $families->map(
                fn (Family $f) => [
                    'code' => $f->code,
                    'name' => $f->name,
                    'outsideParts' => $listed($f->body['outsideParts']),
                    'hardParts' => $listed($f->body['hardParts']),
                    'outline' => $f->body['outline'] ?? null,
                    'features' => ($features[$f->id] ?? collect())
                        ->map(
                            fn (FamilySpec $s) => [
                                'code' => $s->code,
                                'name' => $s->name,
                                'how' => $s->body['how'] ?? '',
                                'kind' => $s->body['kind'] ?? 'choice',
                                'values' => $s->body['values'] ?? [],
                                'unit' => $s->body['unit'] ?? null,
                            ],
                        )
                        ->values(),
                ],
            ),
            'clues' => Vocabulary::body('intake-clues')->groups,
            'grades' => CoreCredit::GRADES,
            'nextTag' => self::nextTag(),
        ]);
    }

    public function credit(Request $request, CreditPrice $credit, GradeProposal $grade): JsonResponse
    {
        $in = $request->validate(
            array_intersect_key(
                self::INTAKE,
                array_flip([
                    'family',
                    'missing',
                    'missing.*.part',
                    'missing.*.count',
                    'failedHard',
                    'failedHard.*.part',
                    'repairHours',
                    'grade',
                    'flags',
                    'flags.*',
                ]),
            ),
        );
        $family = Family::query()
            ->where('code', $in['family'] ?? '')
            ->value('id');
        $proposed = $grade->of(
            null,
            $family,
            $in['missing'] ?? [],
            $in['failedHard'] ?? [],
            (float) ($in['repairHours'] ?? 0),
            $in['flags'] ?? [],
        );

        return response()->json(
            $credit->of(
                null,
                $family,
                $in['missing'] ?? [],
                $in['failedHard'] ?? [],
                (float) ($in['repairHours'] ?? 0),
                $in['grade'] ?? $proposed['grade'],
            ) + ['proposedGrade' => $proposed['grade'], 'proposedReason' => $proposed['reason']],
        );
    }

    public function creditRevision(string $number, ReviseCredit $action): JsonResponse
    {
        return response()->json($action->preview(Unit::byNumber($number)));
    }

    public function reviseCredit(
        Request $request,
        string $number,
        ReviseCredit $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validate(
            ['reason' => 'required|string|max:300', 'version' => 'required|integer'],
            ['reason.required' => 'Say why the credit changes.'],
        );
        $unit = Unit::byNumber($number);
        $action->revise($unit, $in['reason'], $in['version'], $request->user());

        return response()->json($card->of($unit, ['intake']));
    }

    public function balances(CoreBalance $balance): JsonResponse
    {
        return response()->json(['balances' => $balance->all()]);
    }

    public function statement(Request $request, string $code, CoreBalance $balance): JsonResponse
    {
        $in = $request->validate([
            'from' => 'nullable|date_format:Y-m-d',
            'to' => 'nullable|date_format:Y-m-d|after_or_equal:from',
        ]);

        return response()->json(
            $balance->statement(
                Customer::query()->where('code', $code)->firstOrFail(),
                $in['from'] ?? now()->subMonths(3)->format('Y-m-d'),
                $in['to'] ?? now()->format('Y-m-d'),
            ),
        );
    }

    public function store(Request $request, ReceiveCore $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(
            ['coreTag' => ['required', 'string', 'max:20', 'regex:/^[A-Z0-9][A-Z0-9-]{2,19}$/']] + self::INTAKE,
            ['coreTag.regex' => 'A core tag has 3 to 20 capital letters, digits and dashes.'],
        );

        return response()->json($card->of($action->receive($in, $request->user()), ['intake']), 201);
    }

    public function revise(Request $request, string $number, ReviseIntake $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(['version' => 'required|integer'] + self::INTAKE);

        return response()->json(
            $card->of($action->revise(Unit::byNumber($number), $in, $request->user()), ['intake']),
        );
    }

    public function photo(Request $request, string $number, AttachPhoto $action): JsonResponse
    {
        $in = $request->validate(
            [
                'photo' => 'required|file|max:24576',
                'place' => 'required|string|max:80',
                'station' => 'nullable|string|max:20',
            ],
            ['photo.max' => 'The file is larger than 24 MB.', 'photo.uploaded' => 'The file is larger than 24 MB.'],
        );
        $photo = $action->attach(
            Unit::byNumber($number),
            $in['photo'],
            $in['place'],
            $in['station'] ?? 'receiving',
            $request->user(),
        );

        return response()->json(
            ['id' => $photo->id, 'place' => $photo->place, 'width' => $photo->width, 'height' => $photo->height],
            201,
        );
    }

    public function showPhoto(Photo $photo): BinaryFileResponse
    {
        return response()->file(config('yard.state').'/app/'.$photo->path, [
            'Content-Type' => 'image/jpeg',
            'Cache-Control' => 'private, max-age=31536000, immutable',
        ]);
    }

    public function basket(Request $request, string $number, FillTray $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate([
            'tag' => 'required|string|max:20',
            'items' => 'required|array|min:1|max:200',
            'items.*.name' => 'required|string|max:120',
            'items.*.count' => 'required|integer|min:1|max:500',
            'items.*.keepTogether' => 'nullable|string|max:40',
        ]);
        $unit = Unit::byNumber($number);
        $action->fill($unit, $in['tag'], $in['items']);

        return response()->json($card->of($unit, ['intake']), 201);
    }

    public function hold(Request $request, string $number, PlaceHold $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate([
            'reason' => 'required|string|max:300',
            'liftRole' => 'nullable|in:manager,receiver,builder,cell,returns',
        ]);
        $unit = Unit::byNumber($number);
        $action->place(
            $unit,
            'manual',
            rtrim($in['reason'], '.').'.',
            $request->user(),
            $in['liftRole'] ?? 'manager',
        );

        return response()->json($card->of($unit, ['intake']), 201);
    }

    public function lift(Request $request, Hold $hold, LiftHold $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(['reason' => 'required|string|max:300']);
        $action->lift($hold, $in['reason'], $request->user());

        return response()->json($card->of($hold->unit()->firstOrFail(), ['intake']));
    }

    private static function nextTag(): string
    {
        $last = Unit::query()->where('core_tag', 'like', 'C-%')->orderByDesc('id')->value('core_tag');

        return 'C-'.str_pad((string) ((int) preg_replace('/\D/', '', (string) $last) + 1), 4, '0', STR_PAD_LEFT);
    }
}
