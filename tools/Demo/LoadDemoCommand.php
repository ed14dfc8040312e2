<?php

namespace Tools\Demo;

use App\Catalog\Edit\EditEntry;
use App\Catalog\Exchange\CatalogStore;
use App\Catalog\Exchange\ImportPack;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Option;
use App\Kernel\Transaction;
use App\Shop\Actions\KeepGauges;
use App\Shop\Models\Person;
use App\Stations\Assembly\Actions\PickParts;
use App\Stations\Assembly\Actions\SignOffBuild;
use App\Stations\Assembly\Queries\PickList;
use App\Stations\Dispatch\Actions\RecordCommissioning;
use App\Stations\Dispatch\Actions\ShipUnit;
use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Actions\JudgeRun;
use App\Stations\Dyno\Actions\KeepReference;
use App\Stations\Dyno\Actions\OnTheRig;
use App\Stations\Dyno\Actions\StartRun;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use App\Stations\Identification\Actions\AnswerClue;
use App\Stations\Identification\Actions\ConfirmIdentity;
use App\Stations\Ordering\Actions\PlaceOrder;
use App\Stations\Ordering\Actions\ReleaseBuild;
use App\Stations\Receiving\Actions\FillTray;
use App\Stations\Receiving\Actions\ReceiveCore;
use App\Stations\Receiving\Actions\WeighTray;
use App\Stations\Returns\Actions\DecideVerdict;
use App\Stations\Returns\Actions\ObserveReturn;
use App\Stations\Returns\Actions\OpenReturn;
use App\Stations\Returns\Actions\StartSecondBuild;
use App\Stations\Returns\Models\UnitReturn;
use App\Stations\Teardown\Actions\AskForExtraWork;
use App\Stations\Teardown\Actions\CompleteTeardown;
use App\Stations\Teardown\Actions\GradeAgain;
use App\Stations\Teardown\Actions\NameVehicleCause;
use App\Stations\Teardown\Actions\RecordFinding;
use App\Stations\Teardown\Actions\ReportSymptoms;
use App\Stations\Teardown\Actions\TellTimeline;
use App\Stations\Teardown\Models\Finding;
use App\Work\Bench;
use App\Work\Queries\CountedOut;
use App\Work\ReadingKind;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Console\Command;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;

/** Months of work of the invented shop, done through the same actions as on the screens. */
final class LoadDemoCommand extends Command
{
    protected $signature = 'demo:load';

    protected $description = 'Load the demo catalog and the demo shop into an empty database';

    /** How far each stage has come along the route. */
    private const QUICK_ROUNDS = 4;

    private const DEPTH = [
        'refused' => 0,
        'identification' => 0,
        'identification-part' => 0,
        'identification-hold' => 0,
        'ordering' => 1,
        'ordering-draft' => 2,
        'teardown' => 3,
        'teardown-part' => 3,
        'assembly' => 4,
        'assembly-part' => 4,
        'dyno' => 5,
        'dyno-failed' => 5,
        'dispatch' => 6,
        'field' => 7,
        'returned-open' => 8,
        'returned' => 8,
    ];

    private string $today;

    private ?Carbon $clock = null;

    public function handle(ImportPack $import): int
    {
        $this->today = Carbon::today()->format('Y-m-d');
        if (Unit::query()->exists()) {
            $this->error('The database already holds units; the demo goes into an empty one only.');

            return 1;
        }
        // The catalog came in half a year ago and was changed since: its history is real history to look back on.
        $this->setDatabaseClock(-200, 8);
        DB::transaction(function () use ($import): void {
            $import->import((string) file_get_contents(database_path('demo/catalog.json')), fn () => null);
            // Second persons sign hundreds of times in this half year: their PINs are hashed in earnest at the end.
            DemoShop::furnish(self::QUICK_ROUNDS);
        });
        foreach (DemoShop::read()['catalogEdits'] as $edit) {
            $this->setDatabaseClock($edit['day'], 11);
            $this->on($edit['day'], 11, '100');
            Transaction::run(fn () => $this->editCatalog($edit));
        }
        DB::statement('SET @@timestamp = DEFAULT');
        foreach (DemoShop::read()['units'] as $n => $story) {
            $this->clock = null;
            Transaction::run(fn () => $this->live($story, $n));
            $this->line("{$story['tag']}: {$story['stage']}");
        }
        $this->clock = null;
        foreach (DemoShop::read()['references'] as $reference) {
            $this->tellCell($reference);
        }
        $this->clock = null;
        Transaction::run(fn () => $this->studyGauges());
        Carbon::setTestNow();
        DemoShop::hashPins();

        return 0;
    }

    /** @param  array{kind: string, key: string, set: array<string, mixed>}  $edit */
    private function editCatalog(array $edit): void
    {
        $store = app(CatalogStore::class);
        $entry = app(EditEntry::class);
        $node = $store->nodes($edit['kind'], null, null, [$edit['key']])[$edit['key']];
        foreach ($edit['set'] as $field => $value) {
            $node->body->{$field} = json_decode(json_encode($value, JSON_THROW_ON_ERROR));
        }
        $entry->save(
            $edit['kind'],
            explode('|', $edit['key'])[0],
            $edit['key'],
            $node,
            $entry->version($edit['kind'], $edit['key']),
        );
    }

    private function setDatabaseClock(int $day, int $hour): void
    {
        DB::statement(
            'SET @@timestamp = '.Carbon::parse($this->today)->addDays($day)->setTime($hour, 0)->getTimestamp(),
        );
    }

    /** @param  array<string, mixed>  $s one unit's story from shop.json */
    private function live(array $s, int $n): void
    {
        $depth = self::DEPTH[$s['stage']];
        $unit = $this->receive($s, $n, $depth);
        if ($depth >= 1) {
            app(ConfirmIdentity::class)->confirm(
                $unit->refresh(),
                $s['variant'],
                $n === 7 ? ['tail housing of an RD4-M'] : [],
                '',
                $this->on($s['day'], 10, '101'),
            );
        }
        if ($depth < 2) {
            return;
        }
        $manager = $this->on($s['day'] + 1, 9, '100');
        $build = $this->order($unit, $s, $n, $manager);
        if ($depth < 3) {
            return;
        }
        $build = app(ReleaseBuild::class)->release(
            $unit->refresh(),
            $build->version,
            Option::query()->where('family_id', $unit->family_id)->pluck('code')->all(),
            $manager,
        );
        $this->tearDown($unit->refresh(), $s, $n);
        $this->build($unit, $build, $s, $n, $depth);
    }

    /** @param  array<string, mixed>  $s */
    private function build(Unit $unit, Build $build, array $s, int $n, int $depth): void
    {
        if ($depth >= 4 && $s['stage'] !== 'assembly') {
            $this->assemble($unit->refresh(), $build->refresh(), $s, $n);
        }
        if ($depth >= 5) {
            $fault = ['fault' => 'slow-accumulator', 'where' => 'C3', 'severity' => 0.95];
            $faults = $s['stage'] === 'dyno-failed' ? [$fault] : [];
            $this->test($unit->refresh(), $build, $s, $faults, $s['stage'] !== 'dyno');
        }
        if ($depth >= 7) {
            $this->ship($unit->refresh(), $build->refresh(), $s);
        }
        if ($depth >= 8) {
            $this->comeBack($unit->refresh(), $build->refresh(), $s);
        }
    }

    /** What a story tells of the intake, in the words of the receiving form. */
    private const TOLD = [
        'rack',
        'vehicle',
        'vin',
        'odometer',
        'complaint',
        'codes',
        'clues',
        'missing',
        'failedHard',
        'repairHours',
        'flags',
        'damage',
        'tagCode',
        'converter',
    ];

    /** @param  array<string, mixed>  $s */
    private function receive(array $s, int $n, int $depth): Unit
    {
        $receiver = $this->on($s['day'], 8, '101');
        $promised = now()->addDays(14 + ($n % 5))->format('Y-m-d');
        $unit = app(ReceiveCore::class)->receive(
            [
                'coreTag' => $s['tag'],
                'jobType' => 'rebuild',
                'ownership' => 'exchange',
                'family' => $s['family'] ?? 'RD4',
                'customer' => $s['customer'] ?? '' ?: null,
                'sender' => $s['sender'] ?? 'own',
                'promisedOn' => $depth > 0 ? $promised : null,
            ] + array_intersect_key($s, array_flip(self::TOLD)),
            $receiver,
        );
        foreach ($s['answers'] ?? [] as $feature => $value) {
            app(AnswerClue::class)->answer($unit, $feature, $value, $this->on($s['day'], 9, '101'));
        }
        $this->hear($unit, $s);

        return $unit;
    }

    /** @param  array<string, mixed>  $s */
    private function hear(Unit $unit, array $s): void
    {
        foreach ($s['life'] ?? [] as [$at, $kind, $said]) {
            app(TellTimeline::class)->tell($unit, $at, $kind, $said, $this->on($s['day'], 9, '101'));
        }
        if (isset($s['symptoms']) && $s['stage'] !== 'refused') {
            app(ReportSymptoms::class)->report($unit, $s['symptoms'], $this->on($s['day'], 9, '101'));
        }
    }

    /** @param  array<string, mixed>  $s */
    private function order(Unit $unit, array $s, int $n, Person $manager): Build
    {
        return app(PlaceOrder::class)->place(
            $unit->refresh(),
            [
                'package' => $s['package'],
                'customer' => $s['customer'] ?: null,
                'vehicle' => $s['vehicleCode'],
                'promisedOn' => now()->addDays(16 + ($n % 9))->format('Y-m-d'),
            ],
            $manager,
        );
    }

    /** @param  array<string, mixed>  $s */
    private function tearDown(Unit $unit, array $s, int $n): void
    {
        $tech = $this->on($s['day'] + 2, 8, '102');
        $second = str_contains($s['complaint'], 'second');
        $pump = $n % 3 === 0 ? ['grooved', 'replace'] : ['shiny', 'reuse'];
        $found = [
            'high-frictions' => $second ? ['even brown', 'replace', 'none'] : ['black', 'replace', 'cause'],
            'band' => $second ? ['lining gone', 'replace', 'cause'] : ['even brown', 'replace', 'none'],
            'reverse-drum' => $second
                ? ['band surface grooved', 'scrap', 'collateral']
                : ['sound', 'reuse', 'none'],
            'bushings' => ['dark', 'replace', 'collateral'],
            'planet' => ['sound', 'reuse', 'none'],
            'pump' => [...$pump, 'none'],
        ];
        $found = $this->inFamily($unit, $found);
        $most = ['teardown-part' => 29, 'teardown' => 0][$s['stage']] ?? PHP_INT_MAX;
        $hands = new BenchHands(Bench::Teardown, fn () => $this->on($s['day'] + 2, 9, '102', 8), $found, $n);
        $hands->work($unit, $most);
        if ($most < 5) {
            return;
        }
        self::fillTray($unit);
        $known = array_flip($this->inspected($unit));
        $half = $most !== PHP_INT_MAX;
        foreach (array_slice($found, 0, $half ? 3 : 6, true) as $part => $finding) {
            isset($known[$part]) || app(RecordFinding::class)->record($unit, ['part' => $part] + $finding, $tech);
        }
        $this->gradeAgain($unit, $n, $this->on($s['day'] + 2, 14, '103'));
        if ($half) {
            $this->comeToLight($unit, $tech);

            return;
        }
        app(CompleteTeardown::class)->complete($unit->refresh(), false, $this->on($s['day'] + 2, 15, '102'));
    }

    /** What was counted out first lies in a tray, each kind in its bag. */
    private static function fillTray(Unit $unit): void
    {
        $counted = CountedOut::of($unit);
        $bags = ['check balls' => 'balls', 'valve body bolts' => 'bolts by length', 'accumulator pistons' => 'pistons'];
        app(FillTray::class)->fill($unit, 'T-'.substr($unit->core_tag, 2), array_map(
            fn (string $name, int $count): array => compact('name', 'count') + ['keepTogether' => $bags[$name] ?? ''],
            array_keys(array_slice($counted, 0, 4)),
            array_slice($counted, 0, 4),
        ));
    }

    /** A second person grades what is due; most the same, some one step off. */
    private function gradeAgain(Unit $unit, int $n, Person $second): void
    {
        $lists = array_column(FamilySpec::bodies((int) $unit->family_id, 'finding'), 'conditions', 'code');
        foreach (Finding::query()->where('unit_id', $unit->id)->where('second_due', true)->get() as $i => $first) {
            if ($n % 5 === 4) {
                return; // the newest wait
            }
            $conditions = $lists[$first->part];
            $at = (int) array_search($first->condition, $conditions, true);
            $off = ($n + $i) % 7 === 2 ? ($at > 0 ? -1 : 1) : 0;
            app(GradeAgain::class)->grade($unit, $first->part, $conditions[$at + $off] ?? $first->condition, $second);
        }
    }

    /** What a half torn down unit has shown so far, beyond its parts. */
    private function comeToLight(Unit $unit, Person $tech): void
    {
        app(NameVehicleCause::class)->name($unit, 'cooler', 'Paste in the return line.', $tech);
        app(AskForExtraWork::class)->ask($unit, 'Cooler and lines exchanged while the unit is out', 1.5, 180, $tech);
        $counted = array_slice(CountedOut::of($unit), 0, 1);
        app(WeighTray::class)->weigh($unit, 'T-'.substr($unit->core_tag, 2), [
            'item' => (string) key($counted),
            'sample' => 4,
            'sampleWeight' => '4.2 g',
            'basket' => '118.0 g',
            'filled' => sprintf('%.2f g', 118.0 + 1.05 * current($counted)),
        ], $tech);
    }

    /**
     * What of a story this family has: its parts and their conditions. A burnt pack where nothing of it is left.
     *
     * @param  array<string, list<string>>  $found  condition, disposition, role by part
     * @return array<string, array<string, string>>
     */
    private function inFamily(Unit $unit, array $found): array
    {
        $list = FamilySpec::query()
            ->where('family_id', $unit->family_id)
            ->where('kind', 'finding')
            ->get()
            ->mapWithKeys(fn (FamilySpec $s) => [$s->code => $s->body['conditions']]);
        $found = array_filter(
            $found,
            fn (array $f, string $part): bool => in_array($f[0], $list[$part] ?? [], true),
            ARRAY_FILTER_USE_BOTH,
        );
        if (! in_array('cause', array_column($found, 2), true)) {
            $found['high-frictions'] = ['black', 'replace', 'cause'];
        }

        return array_map(
            fn (array $f) => ['condition' => $f[0], 'disposition' => $f[1], 'role' => $f[2]],
            $found,
        );
    }

    /** @return list<string> parts that were looked at already */
    private function inspected(Unit $unit): array
    {
        return array_values(Finding::query()->where('unit_id', $unit->id)->pluck('part')->all());
    }

    /** What the order asks, from the oldest lot of each. */
    private function pick(Build $build, Person $by): void
    {
        $unit = Unit::query()->findOrFail($build->unit_id);
        foreach (app(PickList::class)->of($build)['lines'] as $line) {
            if ($line['lots'] !== [] && $line['lots'][0]['pieces'] >= $line['count']) {
                $of = $build->setRelation('unit', $unit);
                app(PickParts::class)->pick($of, $line['part'], $line['lots'][0]['lot'], null, $by);
            }
        }
    }

    /** Two people, three parts, twice each: what the feeler set and the dial spread. */
    private function studyGauges(): void
    {
        $manager = $this->on(-12, 15, '100');
        foreach (['F-01' => [0.0004, 0.0006], 'D-01' => [0.0003, 0.0002]] as $code => [$between, $again]) {
            $rows = [];
            foreach (['Imre' => 0.0, 'Bo' => $between] as $person => $off) {
                foreach (['A' => 0.021, 'B' => 0.028, 'C' => 0.034] as $part => $size) {
                    foreach ([-$again, $again, 0.0] as $error) {
                        $reading = sprintf('%.4f in', $size + $off + $error);
                        $rows[] = ['person' => $person, 'part' => $part, 'reading' => $reading];
                    }
                }
            }
            app(KeepGauges::class)->study($code, $rows, $manager);
        }
    }

    /** @param  array<string, mixed>  $s */
    private function assemble(Unit $unit, Build $build, array $s, int $n): void
    {
        $badge = $n % 2 === 0 ? '103' : '107';
        $this->on($s['day'] + 4, 8, $badge);
        $part = $s['stage'] === 'assembly-part';
        $n % 3 === 0 && $this->pick($build, $this->on($s['day'] + 4, 8, $badge));
        $hands = new BenchHands(Bench::Assembly, fn () => $this->on($s['day'] + 4, 9, $badge, 6), [], $n);
        $hands->work($unit, $part ? 6 : PHP_INT_MAX);
        if ($part) {
            return;
        }
        BenchHands::signSubs($unit, $this->on($s['day'] + 5, 15, $badge));
        app(SignOffBuild::class)->sign($build, $this->on($s['day'] + 5, 16, $badge));
    }

    /**
     * @param  array<string, mixed>  $s
     * @param  list<array<string, mixed>>  $faults  of the unit, as set at the rig's console
     */
    private function test(Unit $unit, Build $build, array $s, array $faults, bool $judge): void
    {
        $operator = $this->on($s['day'] + 6, 9, '104');
        $run = app(StartRun::class)->start($build->refresh(), 'A', $operator);
        $this->record($run, $faults);
        if ($judge) {
            [$verdict, $reason, $suspect] = $faults === []
                ? ['pass', '', '']
                : ['fail', 'Runs up between second and third.', 'C3'];
            $judge = $this->on($s['day'] + 6, 11, '104');
            app(JudgeRun::class)->judge(Run::query()->findOrFail($run->id), $verdict, $reason, $suspect, $judge);
        }
    }

    /** @param  list<array<string, mixed>>  $faults */
    private function record(Run $run, array $faults): void
    {
        self::drive($run, $faults);
        $run->update([
            'state' => 'recorded',
            'ended_at' => now()->addSeconds((int) $run->program['end']),
            'trace_path' => "traces/run-$run->id.csv",
        ]);
        app()->call([new AnalyseRun($run->id), 'handle']);
    }

    /**
     * A unit that passed stays in the house and runs every morning.
     *
     * @param  array{cell: string, tag: string, day: int, runs: int}  $reference
     */
    private function tellCell(array $reference): void
    {
        ['cell' => $cell, 'tag' => $tag, 'day' => $day] = $reference;
        Transaction::run(fn () => app(KeepReference::class)->keep(
            $cell,
            Unit::byNumber($tag),
            $this->on($day, 7, '100'),
        ));
        for ($n = 0; $n < $reference['runs']; $n++) {
            Transaction::run(function () use ($cell, $day, $n): void {
                $run = app(StartRun::class)->reference($cell, $this->on($day + $n, 7, '104', 10));
                $this->record($run, []);
            });
        }
    }

    /** The rig is reckoned a thousand times a second: compiled it takes less than half the time. */
    private const JIT = ['-dopcache.enable_cli=1', '-dopcache.jit_buffer_size=64M', '-dopcache.jit=tracing'];

    /**
     * Lets the rig run the program at once and keeps what it recorded.
     *
     * @param  list<array<string, mixed>>  $faults
     */
    private static function drive(Run $run, array $faults): void
    {
        $asked = tempnam(sys_get_temp_dir(), 'yard');
        file_put_contents($asked, json_encode([
            'specimen' => app(OnTheRig::class)->file($run->build),
            'faults' => $faults,
            'orders' => $run->program['steps'],
            'end_s' => $run->program['end'],
            'seed' => $run->id,
        ]));
        $rig = [PHP_BINARY, ...self::JIT, base_path('rig/rig.php'), '--once', $asked];
        $result = Process::timeout(120)->run($rig)->throw();
        unlink($asked);
        @mkdir(dirname(Trace::path($run)), 0775, true);
        file_put_contents(Trace::path($run), $result->output());
    }

    /** @param  array<string, mixed>  $s */
    private function ship(Unit $unit, Build $build, array $s): void
    {
        $hands = new BenchHands(Bench::Dispatch, fn () => $this->on($s['day'] + 7, 13, '100', 3), [], 0);
        $hands->work($unit, PHP_INT_MAX);
        app(ShipUnit::class)->ship($build, null, 'Own lorry', $this->on($s['day'] + 7, 14, '100'));
        app(RecordCommissioning::class)->record(
            $build->refresh(),
            [
                'installedOn' => now()->addDays(3)->format('Y-m-d'),
                'odometer' => '124500 km',
                'installer' => 'Workshop of the customer',
                'items' => $s['stage'] === 'returned'
                        ? ['level', 'codes', 'road-test']
                        : ['cooler', 'level', 'codes', 'range-switch', 'relearn', 'road-test'],
                'converterDepth' => '29.5 mm',
                'flexplateDepth' => '27 mm',
            ],
            $this->on($s['day'] + 10, 9, '105'),
        );
    }

    /** @param  array<string, mixed>  $s */
    private function comeBack(Unit $unit, Build $build, array $s): void
    {
        $done = $s['stage'] === 'returned';
        $return = $this->openReturn($build, $s, $done);
        $seen = $done
            ? [
                'oil-level' => 'low',
                'plates' => 'one pack',
                'cooler' => 'not flushed',
                'weeks' => '8 to 52 weeks',
                'depth' => 'on file and right',
                'debris' => 'linings',
                'record' => 'well inside',
            ]
            : ['oil-level' => 'right', 'weeks' => '8 to 52 weeks'];
        $hands = new BenchHands(Bench::Returns, fn () => $this->on(-9, 10, '105', 5), ['seen' => $seen], 0);
        $hands->work($unit, $done ? PHP_INT_MAX : 3);
        foreach (array_diff_key($seen, $return->refresh()->observed()) as $feature => $value) {
            app(ObserveReturn::class)->see($return->refresh(), $feature, $value, $return->version);
        }
        app(ObserveReturn::class)->measure($return->refresh(), ReadingKind::Pack, 'C3', '0.091 in', $return->version);
        if ($done) {
            $this->decide($return->refresh());
        }
    }

    /** @param  array<string, mixed>  $s */
    private function openReturn(Build $build, array $s, bool $done): UnitReturn
    {
        $clerk = $this->on(-9, 10, '105');

        return app(OpenReturn::class)->open(
            $build->serial,
            [
                'serial' => $build->serial,
                'complaint' => $done ? 'Third and fourth slip again under load' : 'Bangs into second, then slips',
                'codes' => $done ? ['P0741'] : [],
                'installedOn' => now()->addDays($s['day'] + 19)->format('Y-m-d'),
                'failedOn' => now()->subDays(3)->format('Y-m-d'),
                'odometer' => '131200 km',
            ],
            $clerk,
        );
    }

    private function decide(UnitReturn $return): void
    {
        app(DecideVerdict::class)->decide(
            $return,
            'installation',
            'Cooler full of old lining, not flushed; our clearance was well inside.',
            ['installer' => 70.0, 'shop' => 30.0],
            $return->version,
            $this->on(-6, 11, '105'),
        );
        app(StartSecondBuild::class)->start($return->refresh(), $this->on(-6, 12, '105'));
    }

    /** Sets the clock and who is at work. */
    private function on(int $day, int $hour, string $badge, int $plusMinutes = 0): Person
    {
        // Every event some minutes after the one before, on the day and from the hour the story says.
        $start = Carbon::parse($this->today)->addDays($day)->setTime($hour, 0);
        $this->clock = ($this->clock !== null && $this->clock->gte($start) && $this->clock->isSameDay($start)
            ? $this->clock->copy()
            : $start
        )->addMinutes(4 + $plusMinutes);
        Carbon::setTestNow($this->clock);
        $person = Person::query()->where('badge', $badge)->firstOrFail();
        Auth::setUser($person);

        return $person;
    }
}
