<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Application;
use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Variant;
use App\Kernel\Refusal;
use App\Yard\Contracts\ElementWeights;
use Illuminate\Http\JsonResponse;
use Yard\Core\Drivetrain\ChartReport;

final class CatalogController
{
    public function families(): JsonResponse
    {
        return response()->json([
            'families' => Family::query()
                ->orderBy('code')
                ->get()
                ->map(fn (Family $f) => ['code' => $f->code, 'name' => $f->name, 'topology' => $f->topology]),
        ]);
    }

    /** The section drawing of a family; it changes only with the catalog. */
    public function section(string $code): JsonResponse
    {
        $family = Family::query()->where('code', $code)->firstOrFail();

        return response()->json(
            FamilySection::of($family) ?? throw new Refusal('The catalog has no section drawing of this family.', 404),
        );
    }

    /** A family with its solved gear train, variants, specifications and their sources. */
    public function family(string $code, ElementWeights $weights): JsonResponse
    {
        $family = Family::query()->where('code', $code)->firstOrFail();
        $known = $weights->of($family);

        return response()->json([
            'code' => $family->code,
            'name' => $family->name,
            'topology' => $family->topology,
            'train' => $family->train,
            'solved' => ChartReport::of($family->chart()),
            'shiftFeels' => ShiftFeels::of($family),
            'hardware' => self::hardware($family),
            'causes' => array_map(fn (bool|array $of) => is_array($of) ? (object) $of : $of, $known),
            'control' => $family->body['control'] ?? null,
            'variants' => self::variants($family),
            'specs' => self::specs($family),
            'applications' => self::applications($family),
        ]);
    }

    /** @return array<string, mixed>|null what its elements hold, as power.margin reads it, but for the train */
    private static function hardware(Family $family): ?array
    {
        $power = $family->body['power'] ?? null;

        return $power === null
            ? null
            : array_diff_key(VariantHardware::of($power, $family->train, []), $family->train);
    }

    public function strength(StrengthRequest $request, string $code, StrengthRegister $register): JsonResponse
    {
        $in = $request->validated();
        $family = Family::query()->where('code', $code)->firstOrFail();
        $shock = isset($in['shock']) ? (float) $in['shock'] : null;

        return response()->json($register->of($family, (float) $in['engine'], (float) $in['stall'], $shock));
    }

    /** @return list<array<string, mixed>> */
    private static function variants(Family $family): array
    {
        return array_values(Variant::query()
            ->where('family_id', $family->id)
            ->orderBy('id')
            ->get()
            ->map(
                fn (Variant $v) => [
                    'code' => $v->code,
                    'name' => $v->name,
                    'years' => "$v->from_year-$v->to_year",
                    'coreCharge' => (float) $v->core_charge,
                ],
            )
            ->all());
    }

    /** @return list<array<string, mixed>> windows and torques */
    private static function specs(Family $family): array
    {
        return array_values(FamilySpec::query()
            ->where('family_id', $family->id)
            ->whereIn('kind', ['pack', 'end-play', 'air-check', 'fastener'])
            ->orderBy('kind')
            ->orderBy('position')
            ->get()
            ->map(
                fn (FamilySpec $s) => [
                    'kind' => $s->kind,
                    'code' => $s->code,
                    'name' => $s->name,
                    'window' => $s->body['window'] ?? null,
                    'target' => $s->body['target'] ?? null,
                    'unit' => $s->body['unit'] ?? null,
                    'torque' => $s->body['torque'] ?? null,
                    'source' => $s->source,
                    'edition' => $s->edition,
                    'confidence' => $s->confidence,
                ],
            )
            ->all());
    }

    /** @return list<array<string, mixed>> */
    private static function applications(Family $family): array
    {
        return array_values(Application::query()
            ->with(['vehicle', 'variant'])
            ->whereHas('variant', fn ($q) => $q->where('family_id', $family->id))
            ->orderBy('id')
            ->limit(200)
            ->get()
            ->map(
                fn (Application $a) => [
                    'variant' => $a->variant->code,
                    'vehicle' => "{$a->vehicle->maker} {$a->vehicle->model}, {$a->vehicle->engine}",
                    'years' => "$a->from_year-$a->to_year",
                    'source' => $a->source,
                    'confidence' => $a->confidence,
                ],
            )
            ->all());
    }
}
