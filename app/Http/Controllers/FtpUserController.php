<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Failure\Problem;
use App\FtpUsers\ChangeUser;
use App\FtpUsers\CloseUser;
use App\FtpUsers\ClosingChoice;
use App\FtpUsers\FtpUserOrders;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\FtpUserView;
use App\FtpUsers\HandOvers;
use App\FtpUsers\MakeUser;
use App\FtpUsers\NewFtpUserForm;
use App\FtpUsers\ProveFtpUser;
use App\Models\Account;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Models\Person;
use App\People\SessionBond;
use App\Reach\LookAtTree;
use App\Work\TaskName;
use Cellarium\Core\Credential\PasswordStrength;
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
        $refused = $this->refused($request, $account);
        $at = RemotePath::tryFromString($request->string('directory')->toString());

        return $this->form($refused ?? NewFtpUserForm::empty($account, $at?->toString()));
    }

    /** The form as it was typed, with what the host objected to; null where nothing was refused. */
    private function refused(Request $request, Account $account): ?NewFtpUserForm
    {
        $errand = Errand::where([
            'id' => $request->integer('refused'),
            'kind' => TaskName::forTask(MakeUser::class),
            'account_id' => $account->id,
            'person_id' => $request->user()?->id,
        ])->first();
        if ($errand === null || ! $errand->state->hasEnded()) {
            return null;
        }
        $form = NewFtpUserForm::typed($account, (array) ($errand->given['typed'] ?? []));
        $form->wrong = $errand->result['wrong'] ?? ['' => (string) $errand->words];
        $errand->delete(); // There may be a password in it.

        return $form;
    }

    public function create(Request $request, Account $account, PasswordStrength $strength): RedirectResponse|Response
    {
        $account->load('client', 'sites.destinations', 'sites.client');
        $form = NewFtpUserForm::typed($account, $request->all());
        LookAtTree::again($account, $form->directory());
        if ($form->order($strength, null) === null) {
            return response($this->form($form), 422);
        }
        $again = "/accounts/$account->id/ftp-users/new";
        $errand = Errands::start(MakeUser::class, $again, $account, ['typed' => $form->typed]);
        if ($errand->state->hasEnded() && $errand->state !== ErrandState::Done) {
            $request->query->set('refused', (string) $errand->id);

            return response($this->form($this->refused($request, $account) ?? $form), 422);
        }
        if ($errand->state === ErrandState::Done) {
            return redirect($errand->back);
        }
        // Where it is cancelled, too, what was typed is shown again.
        Errand::whereKey($errand->id)
            ->whereIn('state', [ErrandState::Waiting, ErrandState::Running])
            ->update(['back' => "$again?refused=$errand->id"]);

        return Errands::answer($errand->refresh());
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
        return $this->order($user, ['action' => PendingAction::Renew->value]);
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
        LookAtTree::again($user->account, $directory);
        if ($user->account->seen()->lacks($directory)) {
            throw new Problem("$directory is not there. Nothing was changed.");
        }
        if ($directory->equals($user->path()) && $space === $user->space_limit) {
            return redirect("/ftp-users/$user->id")->with('done', 'It has this directory and this space already.');
        }

        return $this->order($user, FtpUserOrders::changing(
            $directory->equals($user->path()) ? null : $directory,
            $space !== $user->space_limit,
            $space,
        ));
    }

    /** Another closing time concerns nobody but ourselves: the host is not asked. */
    public function closing(Request $request, FtpUser $user): RedirectResponse
    {
        $this->whole($user);
        $ending = $this->ending($request);
        $this->users->endAt($user, $ending->kind, $ending->at, $ending->reason);

        return redirect("/ftp-users/$user->id")->with('done', "$user->login closes {$user->endsWords()}.");
    }

    public function reopen(Request $request, FtpUser $user): RedirectResponse
    {
        return $this->order($user, FtpUserOrders::reopening($this->ending($request)));
    }

    public function close(FtpUser $user): RedirectResponse
    {
        return Errands::answer(Errands::start(CloseUser::class, $this->previous("/ftp-users/$user->id"), $user));
    }

    /** The page it was asked on, with its filters; a page of ours, whatever the header says. */
    private function previous(string $otherwise): string
    {
        $path = Str::after(url()->previous($otherwise), url('/'));

        return str_starts_with($path, '/') && ! str_starts_with($path, '//') ? $path : $otherwise;
    }

    public function remove(FtpUser $user): RedirectResponse
    {
        return $this->order($user, ['action' => PendingAction::Remove->value]);
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

    /** @param  array<string, mixed>  $order  see FtpUserOrders::change() */
    private function order(FtpUser $user, array $order): RedirectResponse
    {
        $errand = Errands::start(ChangeUser::class, "/ftp-users/$user->id", $user, $order);

        // Its page tells how far it has come.
        return $errand->state === ErrandState::Done ? redirect($errand->back) : Errands::answer($errand);
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
            'view' => FtpUserView::forUser($user),
            'byHand' => $this->users->byHand($user),
            'showsSecrets' => Person::viewer()?->may(Permission::SeeSecrets) === true
                && (new SessionBond(session()->driver()))->isFresh(),
        ];
    }
}
