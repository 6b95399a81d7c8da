<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\HandOvers;
use App\FtpUsers\NewFtpUser;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use Carbon\CarbonImmutable;
use Carbon\Exceptions\InvalidFormatException;
use Cellarium\Core\Hosting\InstructionSheet;
use Cellarium\Core\Path\RemotePath;

final class UserOpenCommand extends CellariumCommand
{
    protected $signature = 'cellarium:user-open '
        .self::ACCOUNT
        .' {login : its short name}'
        .' {--directory= : where it lands, from the top of the account} {--space=none : "500MB", "2GB" or none} '
        .'{--closes=job : a time, "2026-12-01 18:00", or job, or never} {--reason= : why it never closes}'
        .' {--purpose= : whom or which job it is for} {--read-only} {--make-directory : make a directory that is not '
        .'there} {--hand-over : show its settings, once; the password is then forgotten here} {--keep-password : keep '
        .'it, encrypted, to go on proving its reach by signing in} {--json : one JSON object on standard output}';

    protected $description = 'Make an FTP user and prove its reach, or open a closed one again (exit 0 open and '
        .'proven, 1 refused or not proven, 3 to be done at the provider)';

    public function handle(FtpUsers $users, HandOvers $handOvers): int
    {
        $this->option('hand-over') !== true || $this->maySeeSecrets() || throw new Problem(
            'Settings are handed over by maintainers. Leave --hand-over out, and ask one to hand them over.',
        );
        $account = $this->accountNamed((string) $this->argument('account'));
        [$ends, $closes] = $this->ends();
        $name = (string) $this->argument('login');
        $closed = $account
            ->ftpUsers()
            ->where([
                'login' => $account->rules()->full($account->rules()->nameIn($name)),
                'state' => FtpUserState::Closed,
            ])
            ->first();
        if ($closed !== null) {
            $user = $closed->setRelation('account', $account);
            $users->reopen($user, $ends, $closes, (string) $this->option('reason'));
            $users->byHand($user) || $users->settle($user);
        } else {
            $given = (string) $this->option('directory');
            $directory = RemotePath::tryFromString($given)
                ?? throw new Problem(
                    $given === ''
                        ? 'Say with --directory where it is to land.'
                        : "$given is no directory: it starts with a slash and has no \"..\" in it.",
                );
            $user = $users->open(
                $account,
                new NewFtpUser(
                    $account->rules()->nameIn($name),
                    $directory,
                    $this->space(),
                    $ends,
                    $closes,
                    (string) $this->option('reason'),
                    (string) $this->option('purpose'),
                    readOnly: $this->option('read-only') === true,
                    makesDirectory: $this->option('make-directory') === true,
                    forgets: $account->control_url !== null
                        && $ends !== Closing::WithJob
                        && $this->option('keep-password') !== true,
                ),
            );
        }

        return $this->tell($users, $handOvers, $user);
    }

    private function tell(FtpUsers $users, HandOvers $handOvers, FtpUser $user): int
    {
        $open = $user->state === FtpUserState::Open && $user->isProven() && $user->action() === null;
        $sheet = $users->sheet($user);
        $settings = $open && $this->option('hand-over') === true ? $handOvers->show($user) : null;
        if ($this->wantsJson()) {
            $this->json(
                [
                    'ok' => $open,
                    'login' => $user->login,
                    'state' => $user->state,
                    'directory' => $user->directory,
                    'reach' => $user->exists ? $user->reach()->sentence() : null,
                    'closes' => $user->endsAs(),
                    'trouble' => $user->trouble,
                ]
                    + ($settings === null ? [] : ['settings' => $settings->reveal() + ['URI' => $settings->uri(false)]])
                    + ($sheet === null
                        ? []
                        : [
                            'to_do' => [
                                'title' => $sheet->title,
                                'steps' => $sheet->steps,
                                'fields' => $sheet->fields
                                    + $this->password($sheet),
                            ],
                        ]),
            );
        } elseif ($sheet !== null) {
            $this->components->info($sheet->title);
            $this->components->bulletList($sheet->steps);
            foreach ($sheet->fields + $this->password($sheet) as $field => $text) {
                $this->components->twoColumnDetail($field, $text);
            }
        } else {
            $open
                ? $this->components->info(
                    "$user->login is open and proven: {$user->reach()->sentence()}; closes {$user->endsWords()}.",
                )
                : $this->components->error("$user->login is not proven: $user->trouble");
            $settings === null ?: $this->line($settings->text());
        }

        return match (true) {
            $open => self::PROVEN,
            $sheet !== null => self::WAITS,
            default => self::REFUSED,
        };
    }

    /** @return array<string, string> */
    private function password(InstructionSheet $sheet): array
    {
        return match (true) {
            $sheet->password === null => [],
            $this->maySeeSecrets() => ['Password' => $sheet->password->reveal()],
            default => ['Password' => '(a maintainer sees it)'],
        };
    }

    /** @return array{Closing, CarbonImmutable|null} */
    private function ends(): array
    {
        $given = (string) $this->option('closes');
        $ends = Closing::tryFrom($given) ?? Closing::AtTime;
        if ($ends !== Closing::AtTime) {
            $ends === Closing::Never
                && (string) $this->option('reason') === ''
                && throw new Problem('Say with --reason why it never closes.');

            return [$ends, null];
        }
        try {
            $closes = CarbonImmutable::parse($given, config('app.timezone'));
        } catch (InvalidFormatException) {
            throw new Problem("$given is no time. Write \"2026-12-01 18:00\", job or never.");
        }
        $closes->isFuture() || throw new Problem('The closing time lies in the past.');

        return [Closing::AtTime, $closes];
    }

    private function space(): ?int
    {
        $given = (string) $this->option('space');
        if ($given === '' || $given === 'none') {
            return null;
        }
        if (preg_match('/\A([1-9]\d{0,8})\s*(MB|GB)?\z/i', $given, $match) !== 1) {
            throw new Problem("$given is no space. Write \"500MB\", \"2GB\" or none.");
        }

        return (int) $match[1] * (strtoupper($match[2] ?? 'MB') === 'GB' ? 1_000_000_000 : 1_000_000);
    }
}
