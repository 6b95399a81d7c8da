<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Site;
use App\Packages\Packages;
use App\Plans\DeploymentRequest;
use App\Plans\Plans;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\Way;

final class DeployCommand extends RunCommand
{
    protected $signature = 'cellarium:deploy {site : the domain} {file : a zip, tar, tar.gz or tar.xz} '
        .'{--ftp-user= : the FTP user '
        .'to sign in as; it is closed at the end when it was made for its job} {--into= : a saved destination of the '
        .'site, or a directory inside its document root} {--reason= : why it goes there although '
        .'another site fits better} {--on-conflict=ask : what counts where the server was changed since the last '
        .'deployment: ask (refuse and list), leave (the one there), put (the new one), both or later} '
        .'{--way= : file_by_file, swap or unpack; left out, what is proposed from what each costs} '
        .'{--json : one JSON object on standard output}';

    private const CHOICES = [
        'leave' => Choice::Theirs,
        'put' => Choice::Ours,
        'both' => Choice::Both,
        'later' => Choice::Newer,
    ];

    protected $description = 'Back up a site, replace it by a package and prove it live (exit 0 proven, 1 refused, 2 '
        .'failed and put back)';

    public function handle(Packages $packages, Plans $plans): int
    {
        $answers = $this->answers();
        $way = $this->way();
        $site = $this->siteNamed((string) $this->argument('site'));
        $file = $this->readable((string) $this->argument('file'));
        $package = $packages->take($file, basename($file));
        $deployment = $plans->orderDeploy(new DeploymentRequest(
            $site,
            $package,
            $this->signingInAs($site->account_id),
            place: $this->place($site),
            reason: is_string($this->option('reason')) ? $this->option('reason') : null,
        ));
        $deployment->update(
            ['answers' => $answers->isNone() ? null : $answers->toArray()]
                + ($way === null ? [] : ['way' => $way, 'way_chosen' => true]),
        );

        return $this->runToItsEnd($deployment, $way);
    }

    /** @throws Problem */
    private function way(): ?Way
    {
        $given = $this->option('way');

        return ! is_string($given) ? null : Way::tryFrom($given)
            ?? throw new Problem('--way is one of '.implode(', ', array_column(Way::cases(), 'value')).'.');
    }

    /** @throws Problem */
    private function answers(): Answers
    {
        $given = (string) $this->option('on-conflict');
        $choice = self::CHOICES[$given] ?? Choice::tryFrom($given); // As it was called before, too.

        return match (true) {
            $choice !== null => Answers::all($choice),
            $given === 'ask' => Answers::none(),
            default => throw new Problem("--on-conflict is one of ask, leave, put, both or later, not $given."),
        };
    }

    private function signingInAs(int $account): ?FtpUser
    {
        $login = $this->option('ftp-user');

        return is_string($login)
            ? FtpUser::with('account.sites')
                ->where(['account_id' => $account, 'login' => $login, 'state' => FtpUserState::Open])
                ->first() ?? throw new Problem("There is no open FTP user $login in this account.")
            : null;
    }

    private function place(Site $site): ?RemotePath
    {
        $given = $this->option('into');
        if (! is_string($given)) {
            return null;
        }
        $saved = $site->destinations()->where('name', $given)->first();

        return $saved?->path()
            ?? (RemotePath::tryFromString($given)
                ?? throw new Problem("$given is neither a saved destination of $site->domain nor a directory."));
    }
}
