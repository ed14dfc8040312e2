<?php

namespace App\Yard;

use App\Shop\Abilities;
use App\Shop\Models\Person;
use App\Shop\Queries\PeopleNames;
use App\Yard\Queries\RouteCard;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;

final class YardServiceProvider extends ServiceProvider
{
    /** The sections of the route card, in the order of the work. */
    private const SECTIONS = [
        \App\Stations\Receiving\Queries\ReceivingSection::class,
        \App\Stations\Identification\Queries\IdentificationSection::class,
        \App\Stations\Ordering\Queries\OrderingSection::class,
        \App\Stations\Teardown\Queries\TeardownSection::class,
        \App\Stations\Assembly\Queries\AssemblySection::class,
        \App\Stations\Dyno\Queries\DynoSection::class,
        \App\Stations\Dispatch\Queries\DispatchSection::class,
        \App\Stations\Returns\Queries\ReturnsSection::class,
    ];

    public function register(): void
    {
        $this->app->scoped(PeopleNames::class);
        $this->app->bind(
            RouteCard::class,
            fn ($app) => new RouteCard(array_map($app->make(...), self::SECTIONS), $app->make(PeopleNames::class)),
        );
    }

    public function boot(): void
    {
        // Addresses without host and port: the same pages work behind a proxy, by name or by number.
        Vite::createAssetPathsUsing(fn (string $path) => '/'.ltrim($path, '/'));
        foreach (Abilities::ALL as $ability => $roles) {
            Gate::define($ability, fn (Person $person) => in_array($person->role, $roles, true));
        }
    }
}
