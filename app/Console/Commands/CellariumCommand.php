<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Site;
use App\Problem;
use Illuminate\Console\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** What the console commands share: --json prints one object on standard output, everything for people goes elsewhere. */
abstract class CellariumCommand extends Command
{
    protected const PROVEN = 0;

    protected const REFUSED = 1;

    protected const PUT_BACK = 2;

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            return parent::execute($input, $output);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }

            return $this->refuse(Problem::words($failure));
        }
    }

    /** @param  array<mixed>  $data */
    protected function json(array $data): void
    {
        $this->output->writeln(json_encode($data, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR), OutputInterface::OUTPUT_RAW);
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

    protected function site(): Site
    {
        $domain = (string) $this->argument('site');

        return Site::with('account.client', 'account.sites')->where('domain', $domain)->first()
            ?? throw new Problem("There is no site $domain. Run cellarium:accounts to see which there are.");
    }

    /** @return string the path of a file that can be read */
    protected function file(): string
    {
        $file = (string) $this->argument('file');

        return is_file($file) && is_readable($file) ? $file : throw new Problem("There is no file $file that can be read. Check the path.");
    }
}
