<?php

namespace App\Shop\Http;

use App\Kernel\Refusal;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Yard\Core\Calculator\Calculators;
use Yard\Core\Input;

/** The computation core over HTTP: the same input and output as core/bin/calc. */
final class CalculatorsController
{
    public function index(): JsonResponse
    {
        return response()->json([
            'calculators' => array_map(
                fn (string $name) => ['name' => $name, 'title' => json_decode(Calculators::schema($name))->title],
                Calculators::names(),
            ),
        ]);
    }

    public function schema(string $name): JsonResponse
    {
        Calculators::exists($name) || throw new Refusal("There is no calculator \"$name\".", 404);

        return response()->json(json_decode(Calculators::schema($name)));
    }

    public function run(Request $request, string $name): JsonResponse
    {
        Calculators::exists($name) || throw new Refusal("There is no calculator \"$name\".", 404);

        return response()->json(
            (object) Calculators::runOn($name, Input::fromJson($request->getContent())),
            options: JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        );
    }
}
