<?php

namespace App\Catalog\Kept;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** While a request is served, what the catalog said before is not read again. */
final class KeepsCatalog
{
    public function __construct(private readonly KeptCatalog $kept)
    {
    }

    public function handle(Request $request, Closure $next): Response
    {
        $this->kept->begin();
        try {
            return $next($request);
        } finally {
            $this->kept->end();
        }
    }
}
