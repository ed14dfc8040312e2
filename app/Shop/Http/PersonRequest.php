<?php

namespace App\Shop\Http;

use App\Shop\Role;
use Illuminate\Validation\Rule;

/** A new person, or what changes of one: the badge is given once. */
final class PersonRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $new = $this->isMethod('POST');

        return [
            'badge' => $new
                ? ['required', 'string', 'max:20', 'regex:/^[A-Za-z0-9-]+$/D', 'unique:people,badge']
                : ['exclude'],
            'name' => 'required|string|max:80',
            'role' => ['required', Rule::enum(Role::class)],
            'skills' => 'present|list|max:20',
            'skills.*' => 'bail|required|string|max:60|distinct:ignore_case',
            'active' => $new ? ['exclude'] : ['required', 'boolean'],
            'version' => $new ? ['exclude'] : ['required', 'integer'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'badge.regex' => 'A badge is letters, digits and hyphens.',
            'badge.unique' => 'Badge :input is somebody\'s already.',
            'skills.*.distinct' => 'The skill ":input" is there twice.',
        ];
    }
}
