<?php

namespace App\Shop\Http;

use App\Shop\Models\Person;
use Illuminate\Foundation\Http\FormRequest;

/** A request of somebody with a badge. Who may send it is said beside the route (can:ability). */
class SignedRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [];
    }

    public function person(): Person
    {
        $person = $this->user();

        return $person instanceof Person ? $person : throw new \LogicException('The route asks for no badge.');
    }
}
