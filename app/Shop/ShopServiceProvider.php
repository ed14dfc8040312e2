<?php

namespace App\Shop;

use App\Track\RouteCard;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;

final class ShopServiceProvider extends ServiceProvider
{
    /** The sections of the route card, in the order of the work. */
    private const SECTIONS = [
        \App\Receiving\IntakeSection::class, \App\Identification\IdentitySection::class, \App\Builds\SpecSection::class, \App\Bench\TeardownSection::class,
        \App\Bench\AssemblySection::class, \App\Cell\DynoSection::class, \App\Shipping\DispatchSection::class, \App\Returns\ReturnSection::class,
    ];

    public function register(): void
    {
        $this->app->scoped(Names::class);
        $this->app->bind(RouteCard::class, fn ($app) => new RouteCard(array_map($app->make(...), self::SECTIONS), $app->make(Names::class)));
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
