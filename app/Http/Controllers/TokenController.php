<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\ApiToken;
use App\Models\Person;
use App\Models\TokenScope;
use App\People\ApiTokens;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** Somebody's own tokens, for build pipelines. */
final class TokenController
{
    private const DAYS = ['90' => '90 days', '365' => 'a year', '0' => 'until it is revoked'];

    public function index(Request $request): View
    {
        return $this->page($request, null, null);
    }

    /** The page that follows shows the token; it is kept nowhere, so that no other page can. */
    public function make(Request $request): View
    {
        $given = $request->validate(
            [
                'name' => ['required', 'string', 'max:80'],
                // It becomes part of a line for a shell.
                'package_name' => ['nullable', 'string', 'max:200', 'regex:/\A[\w.][\w .-]*\z/'],
                'scope' => ['required', Rule::enum(TokenScope::class)],
                'days' => ['required', Rule::in(array_map(strval(...), array_keys(self::DAYS)))],
            ],
            [
                'name.*' => 'Say what uses it, in up to 80 characters.',
                'package_name.*' => 'Names of packages have letters, digits, blanks, dots, - and _ here.',
                'scope.*' => 'Choose what it may do.',
                'days.*' => 'Choose how long it works.',
            ],
        );
        [$token, $secret] = ApiTokens::make(
            $this->person($request),
            $given['name'],
            TokenScope::from($given['scope']),
            $given['package_name'] ?? null,
            $given['days'] === '0' ? null : CarbonImmutable::now()->addDays((int) $given['days']),
        );

        return $this->page($request, $token, $secret->reveal());
    }

    public function revoke(ApiToken $token): RedirectResponse
    {
        ApiTokens::revoke($token);

        return redirect('/me/tokens')->with('done', "$token->name is revoked; it lets nobody in any more.");
    }

    private function page(Request $request, ?ApiToken $made, #[\SensitiveParameter] ?string $secret): View
    {
        return view('tokens', [
            'tokens' => ApiToken::where('person_id', $this->person($request)->id)->latest('id')->limit(200)->get(),
            'days' => self::DAYS,
            'scopes' => TokenScope::cases(),
            'made' => $made,
            'secret' => $secret,
        ]);
    }

    private function person(Request $request): Person
    {
        $person = $request->user();
        assert($person instanceof Person);

        return $person;
    }
}
