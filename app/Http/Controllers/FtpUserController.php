<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Failure\Problem;
use App\FtpUsers\ClosingChoice;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\FtpUserView;
use App\FtpUsers\HandOvers;
use App\FtpUsers\NewFtpUserForm;
use App\FtpUsers\ProveFtpUser;
use App\Models\Account;
use App\Models\ErrandKind;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Person;
use App\People\SessionBond;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\PasswordStrength;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Permission;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;

/** One FTP user from its making to its end. */
final class FtpUserController
{
    public function __construct(private readonly FtpUsers $users)
    {
    }

    public function new(Request $request, Account $account): View
    {
        $account->load('client', 'sites.destinations', 'sites.client');
        $at = RemotePath::tryFromString($request->string('directory')->toString());

        return $this->form(NewFtpUserForm::empty($account, $at?->toString()));
    }

    public function create(Request $request, Account $account, PasswordStrength $strength): RedirectResponse|Response
    {
        $account->load('client', 'sites.destinations', 'sites.client');
        $form = NewFtpUserForm::typed($account, $request->all());
        Errands::lookAgain($account, $form->directory());
        $order = $form->order($strength, $request->user());
        if ($order === null) {
            return response($this->form($form), 422);
        }
        try {
            $user = $this->users->begin($account, $order);
        } catch (ControlFailure|RemoteFailure|Problem $refused) {
            $form->wrong[
                $refused instanceof ControlFailure && $refused->reason->value === 'login_exists' ? 'name' : ''
            ] = Problem::words($refused);

            return response($this->form($form), 422);
        }
        $this->users->byHand($user) || ProveFtpUser::start($user);

        return redirect("/ftp-users/$user->id");
    }

    /** Whether a name can be taken, while it is typed. */
    public function check(Request $request, Account $account): View
    {
        $account->load('sites');
        $form = NewFtpUserForm::typed($account, $request->query());

        return view('parts.login-check', [
            'objection' => $form->objection(),
            'full' => $account->rules()->full($form->typed['name'] === '' ? '…' : $form->typed['name']),
            'typed' => $form->typed['name'] !== '',
        ]);
    }

    /** What a typed password is worth, while it is typed; posted, so that it stands in no address. */
    public function strength(Request $request, Account $account, PasswordStrength $strength): View
    {
        $account->load('client', 'sites');
        $form = NewFtpUserForm::typed($account, $request->all());

        return view('parts.strength', [
            'bits' => $form->typed['password'] === '' ? null : $form->strength($strength)[0],
        ]);
    }

    public function show(FtpUser $user): View
    {
        return view('ftp-user', $this->facts($user));
    }

    /** Its page with the password to be typed at the provider; whoever comes here has just shown that it is them. */
    public function sheet(FtpUser $user): RedirectResponse
    {
        return redirect("/ftp-users/$user->id#sheet");
    }

    /** The part of its page that changes while it is made, changed or proven. */
    public function state(FtpUser $user): View
    {
        return view('parts.ftp-user', $this->facts($user));
    }

    public function prove(FtpUser $user): RedirectResponse
    {
        return $this->settleNext($user, '#proof');
    }

    public function renew(FtpUser $user): RedirectResponse
    {
        $this->users->renew($this->whole($user));

        return $this->settleNext($user);
    }

    public function change(Request $request, FtpUser $user): RedirectResponse
    {
        $this->whole($user);
        $directory = RemotePath::tryFromString($request->string('directory')->toString())
            ?? throw new Problem('The directory starts with a slash and has no ".." in it. Nothing was changed.');
        $typed = trim($request->string('megabytes')->toString());
        $typed === ''
            || (ctype_digit($typed) && (int) $typed > 0 && strlen($typed) < 8)
            || throw new Problem('Space is a whole number of MB from 1, or nothing for no limit. Nothing was changed.');
        $space = $typed === '' ? null : (int) $typed * 1_000_000;
        Errands::lookAgain($user->account, $directory);
        if ($user->account->seen()->lacks($directory)) {
            throw new Problem("$directory is not there. Nothing was changed.");
        }
        if ($directory->equals($user->path()) && $space === $user->space_limit) {
            return redirect("/ftp-users/$user->id")->with('done', 'It has this directory and this space already.');
        }
        $this->users->change(
            $user,
            $directory->equals($user->path()) ? null : $directory,
            $space !== $user->space_limit,
            $space,
        );

        return $this->settleNext($user);
    }

    /** Another closing time concerns nobody but ourselves: the host is not asked. */
    public function closing(Request $request, FtpUser $user): RedirectResponse
    {
        $this->whole($user);
        $ending = $this->ending($request);
        $this->users->endAt(
            $user,
            $ending->kind,
            $ending->at,
            $ending->reason,
        );

        return redirect("/ftp-users/$user->id")->with('done', "$user->login closes {$user->endsWords()}.");
    }

    public function reopen(Request $request, FtpUser $user): RedirectResponse
    {
        $ending = $this->ending($request);
        $this->users->reopen(
            $this->whole($user),
            $ending->kind,
            $ending->at,
            $ending->reason,
        );

        return $this->settleNext($user);
    }

    public function close(FtpUser $user): RedirectResponse
    {
        return Errands::answer(Errands::start(ErrandKind::CloseUser, $this->previous("/ftp-users/$user->id"), $user));
    }

    /** The page it was asked on, with its filters; a page of ours, whatever the header says. */
    private function previous(string $otherwise): string
    {
        $path = Str::after(url()->previous($otherwise), url('/'));

        return str_starts_with($path, '/') && ! str_starts_with($path, '//') ? $path : $otherwise;
    }

    public function remove(FtpUser $user): RedirectResponse
    {
        $this->users->remove($this->whole($user));

        return $this->settleNext($user);
    }

    public function giveUp(FtpUser $user): RedirectResponse
    {
        $this->users->giveUp($this->whole($user));
        if ($user->exists && $user->state === FtpUserState::Open) {
            ProveFtpUser::start($user);
        }

        return redirect($user->exists ? "/ftp-users/$user->id" : "/accounts/$user->account_id")->with(
            'done',
            $user->exists
                ? 'It stays as it was.'
                : "$user->login was given up. If it was made at the provider already, remove it there.",
        );
    }

    /** Shows the settings once, or a link that does; afterwards only whoever holds them knows the password. */
    public function handOver(Request $request, FtpUser $user, HandOvers $handOvers): View
    {
        $this->whole($user);
        $facts = [
            'user' => $user,
            'account' => $user->account,
            'settings' => null,
            'link' => null,
            'hours' => 0,
        ];
        if ($request->string('how')->toString() === 'link') {
            $hours = $request->integer('hours');

            return view(
                'hand-over',
                [
                    'link' => rtrim((string) config('app.url'), '/')
                        .'/hand-over#'
                        .$handOvers->link($user, $hours, $request->user())->reveal(),
                    'hours' => $hours,
                ] + $facts,
            );
        }

        return view('hand-over', ['settings' => $handOvers->show($user)] + $facts);
    }

    private function settleNext(FtpUser $user, string $at = ''): RedirectResponse
    {
        $this->whole($user);
        if ($user->action() === null || ! $this->users->byHand($user) || $at !== '') {
            ProveFtpUser::start($user);
        }

        return redirect("/ftp-users/$user->id$at");
    }

    private function ending(Request $request): ClosingChoice
    {
        $ending = ClosingChoice::typed(
            $request->string('ends')->toString(),
            $request->string('closes')->toString(),
            $request->string('reason')->toString(),
        );

        return $ending instanceof ClosingChoice ? $ending : throw new Problem("$ending[1] Nothing was changed.");
    }

    private function whole(FtpUser $user): FtpUser
    {
        return $user->load('account.client', 'account.sites');
    }

    private function form(NewFtpUserForm $form): View
    {
        $directory = $form->directory();
        $foresight = $directory === null ? null : $form->foresight($directory);

        return view('ftp-user-form', [
            'form' => $form,
            'account' => $form->account,
            'foresight' => $foresight,
            'warning' => $foresight === null ? null : $form->spaceWarning($foresight),
        ]);
    }

    /** @return array<string, mixed> */
    private function facts(FtpUser $user): array
    {
        $user->load(
            'account.client',
            'account.sites.destinations',
            'account.sites.client',
            'person',
            'handOvers.ftpUser',
        );

        return [
            'user' => $user,
            'account' => $user->account,
            'sheet' => $this->users->sheet($user),
            'view' => FtpUserView::of($user),
            'byHand' => $this->users->byHand($user),
            'showsSecrets' => Person::viewer()?->may(Permission::SeeSecrets) === true
                && (new SessionBond(session()->driver()))->isFresh(),
        ];
    }
}
