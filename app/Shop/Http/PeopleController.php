<?php

namespace App\Shop\Http;

use App\Kernel\Transaction;
use App\Shop\Actions\ChangePeople;
use App\Shop\Models\Person;
use App\Shop\Queries\PeopleList;
use App\Shop\Role;
use Illuminate\Http\JsonResponse;

/** The people of the shop, in the manager's hands. */
final class PeopleController
{
    public function __construct(private readonly PeopleList $list, private readonly ChangePeople $people)
    {
    }

    public function index(): JsonResponse
    {
        return response()->json($this->list->all());
    }

    public function log(SignInLogRequest $request): JsonResponse
    {
        $in = $request->validated();

        return response()->json(
            $this->list->log($in['badge'] ?? null, $in['before'] ?? null, (int) config('yard.page_size')),
        );
    }

    public function add(PersonRequest $request): JsonResponse
    {
        $in = $request->validated();
        $this->people->add($in['badge'], $in['name'], Role::from($in['role']), $in['skills']);

        return $this->index()->setStatusCode(201);
    }

    public function change(PersonRequest $request, Person $person): JsonResponse
    {
        $in = $request->validated();
        $this->people->change(
            $person,
            $in['name'],
            Role::from($in['role']),
            $in['skills'],
            (bool) $in['active'],
            (int) $in['version'],
        );

        return $this->index();
    }

    /** Not kept by its key like other writes: what is kept of one could be used to guess the PIN. */
    public function pin(PinRequest $request, Person $person): JsonResponse
    {
        Transaction::run(
            fn () => $this->people->newPin($person, $request->validated()['pin'], $request->person()),
        );

        return $this->index();
    }

    public function endSessions(Person $person): JsonResponse
    {
        $this->people->endSessions($person);

        return $this->index();
    }

    public function lift(Person $person): JsonResponse
    {
        $this->people->lift($person);

        return $this->index();
    }

    public function liftPlace(LiftPlaceRequest $request): JsonResponse
    {
        $this->people->liftPlace($request->validated()['place']);

        return $this->index();
    }
}
