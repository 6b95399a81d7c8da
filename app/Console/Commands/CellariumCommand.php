<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\FtpUser;
use App\Models\Person;
use App\Models\Site;
use App\People\SignInGuard;
use App\Record\Record;
use Cellarium\Core\People\Permission;
use Cellarium\Core\People\Role;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Context;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

/**
 * The common part of the console commands: --json prints one object on standard output, everything for people goes
 * elsewhere.
 */
abstract class CellariumCommand extends Command
{
    protected const ACCOUNT = '{account : its number, label, host, LOGIN@HOST, or the domain of one of its sites}';

    protected const LOGIN = '{login : the short name or the full login}';

    protected const PROVEN = 0;

    protected const REFUSED = 1;

    protected const PUT_BACK = 2;

    /** A person has something to do at the provider first. */
    protected const WAITS = 3;

    /** What whoever acts has to be allowed. */
    protected const PERMISSION = Permission::Work;

    /** Whether Cellarium does it of its own accord, unless a person is named. */
    protected const BY_ITSELF = false;

    protected function configure(): void
    {
        $this->addOption(
            'as',
            null,
            InputOption::VALUE_REQUIRED,
            'the e-mail address of the person who acts; when nobody is named it is '
                .(static::BY_ITSELF ? 'Cellarium itself' : 'the first maintainer'),
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $this->actAs($input->getOption('as'));

            return parent::execute($input, $output);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }

            return $this->refuse(Problem::words($failure));
        }
    }

    /**
     * From here on everything is seen and recorded as by this person.
     *
     * @throws Problem when nobody is called so, or they may not
     */
    private function actAs(?string $email): void
    {
        $person = match (true) {
            $email !== null => Person::open()->where('email', SignInGuard::folded($email))->first(),
            static::BY_ITSELF => null,
            default => Person::open()->where('role', Role::Maintainer)->orderBy('id')->first(),
        };
        $person === null && $email !== null && throw new Problem(
            "Nobody who may sign in has the address $email. See who there is on the page People.",
        );
        $person === null && ! static::BY_ITSELF && throw new Problem(
            'There is no maintainer yet to act as. Run cellarium:person to make one.',
        );
        if ($person === null) {
            return;
        }
        $person->may(static::PERMISSION) || throw new Problem(
            "$person->name is a {$person->role->label()} and may not do this: ".static::PERMISSION->words().'.',
        );
        Auth::setUser($person);
        Context::add(Record::ADDRESS, 'console');
    }

    /** Whether whoever acts may see and hand out passwords. */
    protected function maySeeSecrets(): bool
    {
        return Person::viewer()?->may(Permission::SeeSecrets) === true;
    }

    /** @param  array<mixed>  $data */
    protected function json(array $data): void
    {
        $this->output->writeln(
            json_encode($data, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR),
            OutputInterface::OUTPUT_RAW,
        );
    }

    protected function refuse(string $words): int
    {
        if ($this->wantsJson()) {
            $this->json(['ok' => false, 'error' => $words]);
        } else {
            $this->components->error($words);
        }

        return self::REFUSED;
    }

    protected function wantsJson(): bool
    {
        return $this->option('json') === true;
    }

    protected function siteNamed(string $domain): Site
    {
        return Site::with('account.client', 'account.sites')->where('domain', $domain)->first()
            ?? throw new Problem("There is no site $domain. Run cellarium:accounts to see which there are.");
    }

    /** @param  string  $name  its number, label, host, LOGIN@HOST, or the domain of one of its sites */
    protected function accountNamed(string $name): Account
    {
        [$login, $host] = str_contains($name, '@')
            ? [substr($name, 0, (int) strrpos($name, '@')), substr($name, (int) strrpos($name, '@') + 1)]
            : [null, null];
        $found = Account::with('client', 'sites')
            ->where(
                static fn ($query) => $query
                    ->where('label', $name)
                    ->orWhere('host', $name)
                    ->orWhere('login', $name)
                    ->orWhereHas('sites', static fn ($sites) => $sites->where('domain', $name))
                    ->orWhere(static fn ($both) => $both->where('login', $login)->where('host', $host)),
            )
            ->when(ctype_digit($name), static fn ($query) => $query->orWhere('id', $name))
            ->orderBy('id')
            ->limit(3)
            ->get();
        if ($found->count() > 1) {
            throw new Problem(
                "$name means several accounts: "
                    .$found
                        ->map(static fn (Account $account): string => "$account->id ($account->login@$account->host)")
                        ->join(', ')
                    .'. Give the number.',
            );
        }

        return $found->first()
            ?? throw new Problem("There is no account $name. Run cellarium:accounts to see which there are.");
    }

    protected function ftpUser(Account $account, string $login): FtpUser
    {
        $user = $account
            ->ftpUsers()
            ->whereIn('login', [$login, $account->rules()->full($login)])
            ->orderByRaw("state = 'removed'")
            ->latest('id')
            ->first()
            ?? throw new Problem(
                "There is no FTP user $login in this account. Run cellarium:users to see which there are.",
            );

        return $user->setRelation('account', $account);
    }

    /** @return string the path of a file that can be read */
    protected function readable(string $file): string
    {
        return is_file($file) && is_readable($file)
            ? $file
            : throw new Problem("There is no file $file that can be read. Check the path.");
    }
}
