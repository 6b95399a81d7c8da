<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\FtpUsers\FtpUsers;
use App\Models\Account;
use App\Models\FtpUser;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\Reach;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class FtpUserController
{
    public function preview(Request $request, Account $account): View
    {
        $account->load('sites');
        $path = RemotePath::tryFromString((string) $request->query('directory', '/'));

        return view('parts.reach-preview', [
            'reach' => $path === null ? null : Reach::of($path, $account->documentRoots()),
            'known' => $path !== null && isset($account->tree[$path->toString()]),
        ]);
    }

    public function create(Request $request, Account $account, FtpUsers $users): RedirectResponse
    {
        $account->load('client', 'sites');
        $given = $request->validate([
            'name' => ['required', 'regex:/\A[a-z0-9][a-z0-9._-]{0,31}\z/'],
            'directory' => ['required', 'string', 'max:900', static function (string $field, mixed $value, \Closure $fail): void {
                if (RemotePath::tryFromString((string) $value) === null) {
                    $fail('The directory starts with a slash and has no ".." in it.');
                }
            }],
            'purpose' => ['nullable', 'string', 'max:200'],
            'closes' => ['required', 'date_format:Y-m-d\TH:i', 'after:now'],
            'megabytes' => ['nullable', 'integer', 'min:1', 'max:1000000'],
        ], [
            'name.regex' => 'The login takes small letters, digits, dot, hyphen and underscore, up to 32.',
            'closes.after' => 'The closing time lies in the past.',
        ]);
        $user = $users->open(
            $account, $given['name'], RemotePath::fromString($given['directory']),
            isset($given['megabytes']) ? (int) $given['megabytes'] * 1_000_000 : null, CarbonImmutable::parse($given['closes']), (string) ($given['purpose'] ?? ''),
        );

        return redirect("/accounts/$account->id")->with($user->state === FtpUser::OPEN ? 'done' : 'trouble', $user->state === FtpUser::OPEN
            ? "$user->login is open and its reach is proven: {$user->reach()->sentence()}."
            : "$user->login was created but its reach could not be proven: $user->trouble");
    }

    /** Shows the settings once; afterwards only whoever holds them knows the password. */
    public function handOver(FtpUser $user): RedirectResponse
    {
        $user->load('account.client');
        if ($user->handed_over_at !== null || $user->secret === null) {
            return redirect("/accounts/$user->account_id")->with('trouble', "The settings of $user->login were handed over already. Make a new user when they are lost.");
        }
        $user->update(['handed_over_at' => now()]);
        Record::write('handed_over', "Settings of $user->login handed over", $user->account);

        return redirect("/accounts/$user->account_id")->with('handed_over', [
            'account' => $user->account_id, 'login' => $user->login, 'password' => $user->secret, 'host' => $user->account->host,
            'port' => $user->account->port, 'protocol' => $user->account->protocol->label(), 'directory' => $user->directory,
            'uri' => $user->account->protocol->scheme().'://'.rawurlencode($user->login).'@'.$user->account->host.':'.$user->account->port.'/',
        ]);
    }

    public function prove(FtpUser $user, FtpUsers $users): RedirectResponse
    {
        $user->load('account.client', 'account.sites');
        $holds = $users->prove($user);

        return redirect("/accounts/$user->account_id")->with($holds ? 'done' : 'trouble', $holds ? "Reach of $user->login proven." : "Reach of $user->login not proven: $user->trouble");
    }

    public function close(FtpUser $user, FtpUsers $users): RedirectResponse
    {
        $user->load('account.client', 'account.sites');
        $closed = $users->close($user, 'by hand');

        return redirect()->back(fallback: "/accounts/$user->account_id")->with($closed ? 'done' : 'trouble', $closed ? "$user->login is closed; its sign-in is refused." : "$user->login could not be closed: $user->trouble");
    }
}
