<?php

namespace Tools\Demo;

use App\Catalog\Models\FamilySpec;
use App\Shop\Models\Person;
use App\Shop\Models\PersonSkill;
use App\Shop\Models\SpecialTool;
use App\Stations\Assembly\Actions\SignSubAssembly;
use App\Stations\Assembly\Models\PackFit;
use App\Stations\Assembly\Queries\FitProposal;
use App\Stations\Assembly\Queries\SubAssemblies;
use App\Stations\Returns\Judges\SeenOnReturn;
use App\Stations\Teardown\Models\Finding;
use App\Work\Actions\TakeProof;
use App\Work\Answer;
use App\Work\Bench;
use App\Work\BenchTest;
use App\Work\Judges\FreeJudge;
use App\Work\OperationSpec;
use App\Work\Place;
use App\Work\ProofKind;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Work\ReadingKind;
use App\Yard\Actions\AttachPhoto;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Closure;
use Illuminate\Http\UploadedFile;
use Yard\Core\Quantity\Quantity;

/** Works through the operations of a demo unit as a builder would: each time the first that may be done. */
final class BenchHands
{
    private const SMALL_WRENCH_NM = 30;

    private const GAUGES = ['bore gauge' => 'B-01', 'beam wrench' => 'T-03'];

    /**
     * @param  Closure(): Person  $next  who does the next operation; moves the clock on
     * @param  array<string, array<string, string>>  $findings  what is found, by part; the rest is sound
     * @param  int  $n  number of the story: makes readings differ
     */
    public function __construct(
        private readonly Bench $bench,
        private readonly Closure $next,
        private readonly array $findings,
        private readonly int $n,
    ) {
    }

    /**
     * @param  int  $most  operations
     * @param  array<string>  $except  codes that are left alone
     */
    public function work(Unit $unit, int $most, array $except = []): void
    {
        $last = null;
        for ($i = 0; $i < $most; $i++) {
            $unit = Unit::query()->findOrFail($unit->id);
            $work = BenchWork::of($unit, $this->bench);
            $due = array_filter(
                array_diff($work->available(), $except),
                fn (string $code) => ! ($work->operations[$code]->body['alternative'] ?? false) || $code === 'pump',
            );
            if ($due === []) {
                return;
            }
            $next = $work->operations[reset($due)];
            if ($next->code === $last) {
                throw new \LogicException("\"$next->name\" does not get done: ".implode(' ', $work->openOf($last)));
            }
            $last = $next->code;
            $this->operation($unit, $next, $work->openOf($next->code), ($this->next)());
        }
    }

    /** Whoever built the sub-assemblies signs for each. */
    public static function signSubs(Unit $unit, Person $by): void
    {
        $unit = Unit::query()->findOrFail($unit->id);
        foreach (app(SubAssemblies::class)->of(BenchWork::of($unit, Bench::Assembly)) as $sub) {
            $open = $sub['by'] === null && $sub['left'] === [];
            $open && app(SignSubAssembly::class)->sign(self::buildOf($unit), $sub['name'], $by);
        }
    }

    /** @param  array<string, string>  $open  what is not proven yet, by code of the proof */
    private function operation(Unit $unit, OperationSpec $operation, array $open, Person $by): void
    {
        $due = array_filter($operation->proofs, fn (ProofSpec $p) => isset($open[$p->code]));
        // What is proven already, by somebody who looked before, is said once more to be done with it.
        foreach ($due === [] ? array_slice($operation->proofs, -1) : $due as $proof) {
            if ($proof->kind === ProofKind::Skilled && self::isGood($by, $proof->of)) {
                continue; // who did it is good at it
            }
            $note = $proof->kind === ProofKind::Timer ? 'Soaking since the evening before.' : '';
            app(TakeProof::class)->take(
                $unit,
                $this->bench,
                $operation->code,
                $proof->code,
                Answer::sent($this->answer($unit, $proof, $by), $note, null, null),
                $by,
            );
        }
    }

    /** @return array<string, mixed> */
    private function answer(Unit $unit, ProofSpec $proof, Person $by): array
    {
        return match ($proof->kind) {
            ProofKind::Count => ['counts' => $proof->body['counts']],
            ProofKind::Orientation => ['choice' => $proof->body['right']],
            ProofKind::Timer => ['already' => true],
            ProofKind::Scan => ['code' => $this->code($unit, $proof)],
            ProofKind::Observation => $this->seen($proof),
            ProofKind::Photo => ['photo' => $this->photo($unit, $proof->of, $by)],
            ProofKind::Condition => $this->condition($unit, $proof->of),
            ProofKind::Sign => ['badge' => '100', 'pin' => DemoShop::pin('100')],
            default => $this->measured($unit, $proof),
        };
    }

    /** @return array<string, mixed> */
    private function measured(Unit $unit, ProofSpec $proof): array
    {
        return match ($proof->kind) {
            ProofKind::Done => [],
            ProofKind::Skilled => self::skilled($proof->of),
            ProofKind::Free => ['moves' => array_fill_keys($proof->body['each'], FreeJudge::FALLS)],
            ProofKind::Tool => ['code' => $this->tool($proof)],
            ProofKind::Patch => ['um4' => 1200 + 10 * $this->n, 'um6' => 300 + $this->n, 'um14' => 30],
            ProofKind::Values => $this->tested($unit, $proof),
            ProofKind::Metal => ['choice' => $this->metal($unit, $proof)],
            ProofKind::Fit => $this->fit(self::buildOf($unit), $proof),
            default => $this->reading($unit, $proof),
        };
    }

    /** @return array<string, string> every test of the group somewhere about the middle of its window */
    private function tested(Unit $unit, ProofSpec $proof): array
    {
        $answer = ['temperature' => '24'];
        $gauges = ['resistance' => 'M-01', 'torque' => 'T-03', 'unbalance' => 'W-01'];
        foreach (BenchTest::ofGroup(self::buildOf($unit)->frozen(), $proof->of) as $test) {
            $place = Place::of(self::buildOf($unit), ReadingKind::BenchTest, $test->code);
            $value = $place->min + ($place->max - $place->min) * (0.5 + 0.06 * ($this->n % 5 - 2));
            // what is read of a coil at 24 degrees is more than at 20
            $shown = round($value * ($test->isCoil() ? 1.016 : 1.0), 4);
            $test->isDerived() || $answer[$test->code] = "$shown $test->unit";
            $answer['gauge'] = $gauges[$test->quantity()] ??
                ['inHg' => 'V-01', 'psi' => 'P-01', 'mm' => 'MB-01'][$test->unit];
        }

        return $answer;
    }

    /** @return array{choice: string} */
    private function seen(ProofSpec $proof): array
    {
        return ['choice' => $this->findings['seen'][$proof->of] ?? SeenOnReturn::CANNOT_SAY];
    }

    private function code(Unit $unit, ProofSpec $proof): string
    {
        return match ($proof->of) {
            'unit label' => self::buildOf($unit)->serial,
            'converter tag' => 'CV-'.substr($unit->core_tag, 2),
            default => 'T-'.substr($unit->core_tag, 2),
        };
    }

    private static function isGood(Person $by, string $skill): bool
    {
        return PersonSkill::query()->where('person_id', $by->id)->where('skill', $skill)->exists();
    }

    /** @return array{badge: string, pin: string} of somebody who is good at it */
    private static function skilled(string $skill): array
    {
        $id = PersonSkill::query()->where('skill', $skill)->valueOrFail('person_id');
        $badge = (string) Person::query()->whereKey($id)->value('badge');

        return ['badge' => $badge, 'pin' => DemoShop::pin($badge)];
    }

    /** The first of its kind that was looked at in time. */
    private function tool(ProofSpec $proof): string
    {
        $today = now()->format('Y-m-d');
        $fit = SpecialTool::query()->where('kind', $proof->of)->where('inspected_until', '>=', $today);

        return $fit->orderBy('tag')->firstOrFail()->tag;
    }

    private function metal(Unit $unit, ProofSpec $proof): string
    {
        return array_column(self::buildOf($unit)->frozen()['fasteners'], 'metal', 'code')[$proof->of];
    }

    private static function buildOf(Unit $unit): Build
    {
        return $unit->currentBuild ?? throw new \LogicException('The unit has no build.');
    }

    /** @return array<string, mixed> */
    private function condition(Unit $unit, string $part): array
    {
        $spec = FamilySpec::query()
            ->where('family_id', $unit->family_id)
            ->where('kind', 'finding')
            ->where('code', $part)
            ->firstOrFail();

        $seen = Finding::query()->where('unit_id', $unit->id)->where('part', $part)->latest('id')->first();
        if ($seen !== null) {
            return $seen->only(['condition', 'disposition', 'role', 'version']) + [
                'reading' => $seen->measured_typed,
                'gauge' => $seen->gauge?->code,
            ];
        }
        $found = $this->findings[$part] ?? [
            'condition' => $spec->body['conditions'][0],
            'disposition' => isset($spec->body['always']) ? 'replace' : 'reuse',
            'role' => 'none',
        ];
        $measure = $spec->body['measure'] ?? null;
        if ($measure === null) {
            return $found;
        }
        $window = $measure['window'];
        $reading = $window['min'] + ($window['max'] - $window['min']) * (0.3 + 0.05 * ($this->n % 7));

        return $found + [
            'reading' => sprintf('%.4f %s', $reading, $measure['unit']),
            'gauge' => self::GAUGES[$measure['gauge']] ?? 'D-01',
        ];
    }

    /** @return array<string, mixed> */
    private function fit(Build $build, ProofSpec $proof): array
    {
        $place = array_column($proof->reading()->places($build->frozen()), null, 'code')[$proof->place()];
        $inch = $place['unit'] === 'in';
        // A few thousandths of an inch or their metric like, off what is nominal, as real drums and shafts are.
        $off = (($this->n % 7) - 3) * (isset($place['depth']) ? 1 : 2) * ($inch ? 0.001 : 0.02);
        $usual = $place['depth']['nominal'] ?? $place['target'];
        $written = fn (float $value): string => sprintf($inch ? '%.3f in' : '%.2f mm', $value);
        $text = $written($usual + $off);
        $found = app(FitProposal::class)->propose($build, $proof->place(), $text);
        if (! isset($found['result']['best'])) {
            $text = $written($usual); // a size is not on the shelf
            $found = app(FitProposal::class)->propose($build, $proof->place(), $text);
        }

        return ['reading' => $text, 'picks' => $found['result']['best']['picks']];
    }

    /** @return array<string, mixed> */
    private function reading(Unit $unit, ProofSpec $proof): array
    {
        $build = self::buildOf($unit);
        $place = array_column($proof->reading()->places($build->frozen()), null, 'code')[$proof->place()];
        if ($proof->kind === ProofKind::Torque) {
            $large = Quantity::parse($place['torque'], 'torque', 'N.m')->si() > self::SMALL_WRENCH_NM;

            return ['reading' => $place['torque'], 'gauge' => $large ? 'T-02' : 'T-01'];
        }
        if ($proof->kind === ProofKind::Air) {
            return ['reading' => 1 + (($this->n + ord($proof->of[0])) % 4).' psi', 'gauge' => 'P-01'];
        }
        $fit = PackFit::query()
            ->where('build_id', $build->id)
            ->where('pack', $proof->place())
            ->whereNull('undone_at')
            ->firstOrFail();
        $pack = isset($place['depth']);
        $off = $pack ? (($this->n % 3) - 1) * ($place['unit'] === 'in' ? 0.001 : 0.02) : 0;

        return [
            'reading' => round((float) $fit->predicted + $off, 3)." {$place['unit']}",
            'gauge' => $pack ? 'F-01' : 'D-01',
        ];
    }

    /** A plain picture with its title: the demo has no camera. */
    private function photo(Unit $unit, string $of, Person $by): int
    {
        $image = imagecreatetruecolor(640, 420);
        imagefilledrectangle($image, 0, 0, 640, 420, (int) imagecolorallocate($image, 52, 62, 64));
        imagestring($image, 5, 24, 24, "$unit->core_tag: $of", (int) imagecolorallocate($image, 236, 230, 214));
        $path = (string) tempnam(sys_get_temp_dir(), 'yard');
        imagejpeg($image, $path, 80);
        $photo = app(AttachPhoto::class)->attach(
            $unit,
            new UploadedFile($path, 'bench.jpg', 'image/jpeg', null, true),
            $of,
            $this->bench->value,
            $by,
        );
        unlink($path);

        return $photo->id;
    }
}
