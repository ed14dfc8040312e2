<?php

namespace App\Yard;

use App\Catalog\Kept\KeptCatalog;
use App\Kernel\Http\Serialiser;
use App\Kernel\Ledger\Ledger;
use App\Shop\Abilities;
use App\Shop\Door\OpenSessions;
use App\Shop\Door\SessionFiles;
use App\Shop\HouseRules;
use App\Shop\Models\Person;
use App\Shop\Queries\PeopleNames;
use App\Yard\Http\OneUnitAtATime;
use App\Yard\Queries\RouteCard;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Gate as Ability;
use Illuminate\Support\Facades\Session;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;

/** Makes the rooms known to the framework: what they answer for each other, and who may do what in them. */
final class YardServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->scoped(KeptCatalog::class);
        $this->app->scoped(PeopleNames::class);
        $this->app->scoped(UnitInHand::class);
        $this->app->scoped(Gatekeeper::class);
        $this->app->scoped(Ledger::class);
        $this->app->scoped(HouseRules::class);
        $this->app->bind(Serialiser::class, OneUnitAtATime::class);
        foreach (Rooms::all() as $room) {
            foreach ($room::provides() as $contract => $class) {
                $this->app->scoped($contract, $class);
            }
        }
        $this->app->bind(RouteCard::class, function ($app) {
            /** @var array<string, Contracts\Section> $sections */
            $sections = [];
            foreach (StationName::inHouse() as $name) {
                $sections[$name->value] = $app->make($name->station())->section();
            }

            return new RouteCard($sections, $app->make(PeopleNames::class));
        });
    }

    public function boot(): void
    {
        // A column that is not there is a fault, not a wish.
        Model::preventSilentlyDiscardingAttributes();
        // Addresses without host and port: the same pages work behind a proxy, by name or by number.
        Vite::createAssetPathsUsing(fn (string $path) => '/'.ltrim($path, '/'));
        foreach (Abilities::all() as $ability => $roles) {
            Ability::define(
                $ability,
                fn (Person $person) => in_array($person->role, $roles, true) && $person->pinIsLongEnough(),
            );
        }
        Session::extend(
            'file',
            fn ($app) => new SessionFiles($app->make('files'), config('session.files'), config('session.lifetime')),
        );
        Auth::provider('open-sessions', fn ($app) => new OpenSessions($app->make('hash'), Person::class));
    }
}
