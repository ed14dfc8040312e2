<?php

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The rooms of the house; run by phpstan through phpat. */
final class Layers
{
    private const STATIONS = [
        'Receiving',
        'Identification',
        'Ordering',
        'Teardown',
        'Assembly',
        'Dyno',
        'Dispatch',
        'Returns',
    ];

    private const ROOMS = ['Yard', 'Work', 'Stations', 'Catalog', 'Interchange', 'Money', 'Stock', 'Insight', 'Shop'];

    #[TestRule]
    public function core_knows_no_framework_and_no_application(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Yard\Core'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App'),
                Selector::inNamespace('Illuminate'),
                Selector::inNamespace('Symfony'),
            )
            ->because('the computation is tested and run on its own');
    }

    #[TestRule]
    public function the_json_edge_is_the_outermost_part_of_the_core(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Yard\Core'))
            ->excluding(Selector::inNamespace('Yard\Core\Calculator'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Yard\Core\Calculator'))
            ->because('the computation takes and gives typed values');
    }

    #[TestRule]
    public function the_application_calls_classes_never_calculators(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App'))
            ->excluding(Selector::classname(\App\Shop\Http\CalculatorsController::class))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Yard\Core\Calculator'))
            ->because('JSON is for the command line and the calculators\' own page');
    }

    #[TestRule]
    public function rig_knows_nothing_but_the_wire(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Yard\Rig'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App'),
                Selector::inNamespace('Yard\Core'),
                Selector::inNamespace('Illuminate'),
            )
            ->because('it stands in for a machine of somebody else');
    }

    #[TestRule]
    public function the_kernel_knows_no_room(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Kernel'))
            ->shouldNotDependOn()
            ->classes(...array_map(fn (string $r) => Selector::inNamespace("App\\$r"), self::ROOMS))
            ->because('ledger, writes and problem documents serve every room and know none');
    }

    /** @return iterable<Rule> */
    #[TestRule]
    public function no_station_reaches_into_another(): iterable
    {
        foreach (self::STATIONS as $station) {
            $others = array_values(array_diff(self::STATIONS, [$station]));
            yield PHPat::rule()
                ->classes(Selector::inNamespace("App\\Stations\\$station"))
                ->shouldNotDependOn()
                ->classes(...array_map(fn (string $s) => Selector::inNamespace("App\\Stations\\$s"), $others))
                ->because('stations meet at contracts (App\Yard\Contracts), gates and ledger events');
        }
    }

    #[TestRule]
    public function side_rooms_and_the_yard_know_no_station(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::inNamespace('App\Yard'),
                Selector::inNamespace('App\Work'),
                Selector::inNamespace('App\Money'),
                Selector::inNamespace('App\Stock'),
                Selector::inNamespace('App\Shop'),
                Selector::inNamespace('App\Catalog'),
                Selector::inNamespace('App\Interchange'),
                Selector::inNamespace('App\Insight'),
            )
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Stations'))
            ->because('a station is found by its name in the one list, never by its class');
    }

    #[TestRule]
    public function tables_are_queried_by_hand_in_read_models_only(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App'))
            ->excluding(
                Selector::inNamespace('App\Kernel'),
                Selector::inNamespace('App\Catalog\Edit'),
                Selector::inNamespace('App\Catalog\Exchange'),
                Selector::classname('/\\\\Queries\\\\/', true),
            )
            ->shouldNotDependOn()
            ->classes(Selector::classname(\Illuminate\Support\Facades\DB::class))
            ->because('actions and controllers go through models; the catalog moves whole tables by its map');
    }

    #[TestRule]
    public function controllers_do_not_know_each_other(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::classname('/Controller$/', true))
            ->shouldNotDependOn()
            ->classes(Selector::classname('/Controller$/', true))
            ->because('a controller calls one action and returns one section');
    }
}
