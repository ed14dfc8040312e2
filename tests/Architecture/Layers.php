<?php

namespace Tests\Architecture;

use Illuminate\Database\Eloquent\Model;
use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The rooms of the house; run by phpstan through phpat. */
final class Layers
{
    /** Stations keep their tables to themselves. */
    private const STATIONS = ['Receiving', 'Identification', 'Bench', 'Cell', 'Shipping', 'Returns'];

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

    /** @return iterable<Rule> */
    #[TestRule]
    public function stations_do_not_touch_each_others_tables(): iterable
    {
        foreach (self::STATIONS as $room) {
            $others = array_map(
                fn (string $r) => Selector::AllOf(Selector::inNamespace("App\\$r"), Selector::extends(Model::class)),
                array_values(array_diff(self::STATIONS, [$room])),
            );
            yield PHPat::rule()
                ->classes(Selector::inNamespace("App\\$room"))
                ->shouldNotDependOn()
                ->classes(...$others)
                ->because('stations talk through actions, questions and ledger events');
        }
    }

    #[TestRule]
    public function controllers_do_not_know_each_other(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::classname('/Controller$/', true))
            ->shouldNotDependOn()
            ->classes(Selector::classname('/Controller$/', true))
            ->because('a controller calls one action and returns one resource');
    }
}
