<?php

namespace App\Shop\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Door\OpenSessions;
use App\Shop\Door\PinCounters;
use App\Shop\Door\PinRule;
use App\Shop\Models\Person;
use App\Shop\Models\PersonSkill;
use App\Shop\Role;

/** Who belongs to the shop and what they may do there. */
final class ChangePeople
{
    public function __construct(private readonly Ledger $ledger, private readonly PinCounters $counters)
    {
    }

    /** @param  list<string>  $skills */
    public function add(string $badge, string $name, Role $role, array $skills): Person
    {
        $person = Person::query()->create([
            'badge' => $badge,
            'name' => $name,
            'role' => $role,
            'pin_hash' => '',
            'active' => true,
        ]);
        self::skilled($person, $skills);
        $this->ledger->record('shop', 'person.added', [
            'badge' => $badge,
            'name' => $name,
            'role' => $role->value,
            'skills' => $skills,
        ]);

        return $person;
    }

    /** @param  list<string>  $skills */
    public function change(Person $person, string $name, Role $role, array $skills, bool $active, int $version): void
    {
        // One after the other: two managers must not retire each other at once.
        $managers = Person::query()->where('role', Role::Manager)->where('active', true)->lockForUpdate()->get();
        $person->refresh();
        if ($person->version !== $version) {
            throw Refusal::stale(
                "the record of $person->name",
                ['name' => $person->name, 'role' => $person->role, 'active' => $person->active],
                ['name' => $name, 'role' => $role, 'active' => $active],
            );
        }
        if ($managers->modelKeys() === [$person->id] && ($role !== Role::Manager || ! $active)) {
            throw Refusal::at($active ? '/role' : '/active', "$person->name is the only manager; name another first.");
        }
        $ends = $role !== $person->role || ! $active;
        $person->update(['name' => $name, 'role' => $role, 'active' => $active, 'version' => $version + 1]);
        self::skilled($person, $skills);
        $ends && OpenSessions::end($person);
        $this->ledger->record('shop', 'person.changed', [
            'badge' => $person->badge,
            'name' => $name,
            'role' => $role->value,
            'active' => $active,
            'skills' => $skills,
        ]);
    }

    public function newPin(Person $person, string $pin, Person $by): void
    {
        PinRule::set($person, $pin);
        OpenSessions::end($person, $person->is($by) ? OpenSessions::key() : null);
        $this->counters->lift($person->badge);
        $this->ledger->record('shop', 'pin.changed', ['badge' => $person->badge]);
    }

    public function endSessions(Person $person): void
    {
        OpenSessions::end($person);
        $this->ledger->record('shop', 'sessions.ended', ['badge' => $person->badge]);
    }

    public function lift(Person $person): void
    {
        $this->counters->lift($person->badge);
        $this->ledger->record('shop', 'lock.lifted', ['badge' => $person->badge]);
    }

    public function liftPlace(string $place): void
    {
        if ($this->counters->liftPlace($place) === 0) {
            throw Refusal::at('/place', 'Nothing is locked there any more.');
        }
        $this->ledger->record('shop', 'lock.lifted', ['place' => $place]);
    }

    /** @param  list<string>  $skills */
    private static function skilled(Person $person, array $skills): void
    {
        PersonSkill::query()->where('person_id', $person->id)->delete();
        PersonSkill::query()->insert(
            array_map(fn (string $skill) => ['person_id' => $person->id, 'skill' => $skill], $skills),
        );
    }
}
