<?php

namespace App\Shop\Http;

use App\Shop\Queries\CustomerNames;
use Illuminate\Http\JsonResponse;

/** Customers to choose from, by what is typed of their name or code. */
final class CustomersController
{
    public function index(CustomerSearchRequest $request, CustomerNames $customers): JsonResponse
    {
        return response()->json($customers->page((string) ($request->validated()['q'] ?? '')));
    }
}
