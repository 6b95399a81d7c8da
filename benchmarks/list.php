<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/list.php [ROWS], while ./start is running.
 *
 * Takes over a list of accounts with 128 MB of memory, as a page does: look, then take over. The baseline, in the same
 * run, is the bare writing of as many accounts and sites by themselves, one insert each and no rule in between.
 */

use App\Accounts\AccountImport;
use Cellarium\Core\Intake\AccountList;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;

[$environment] = require __DIR__.'/database.php';
foreach ($environment as $name => $value) {
    putenv("$name=$value");
    $_ENV[$name] = $_SERVER[$name] = $value;
}
ini_set('memory_limit', '128M');
require 'vendor/autoload.php';
$app = require 'bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
restore_exception_handler(); // Whoever starts it is told by the status.

$rows = (int) ($argv[1] ?? 5000);
$text = "client,host,login,password,domain,document root,tags,notes\n";
for ($number = 0; $number < $rows; $number++) {
    $text
        .= 'Client '
        .$number % 700
        .',ftp'
        .$number % 90
        .".list.example,login$number,Pass-word-$number,site$number.example,/htdocs,care plan,\"a note, "
        ."number $number\"\n";
}
$time = static function (string $what, Closure $work): float {
    $from = microtime(true);
    $result = $work();
    printf(
        "%-34s %6.2f s, %5.1f MB at the most so far%s\n",
        $what,
        $seconds = microtime(true) - $from,
        memory_get_peak_usage(true) / 1e6,
        is_array($result) ? ', '.json_encode($result) : '',
    );

    return $seconds;
};
$baseline = $time("$rows bare inserts (baseline)", static function () use ($rows): void {
    DB::beginTransaction();
    $client = DB::table('clients')->insertGetId(['name' => 'Baseline', 'colour' => '#000000']);
    for ($number = 0; $number < $rows; $number++) {
        $account = DB::table('accounts')->insertGetId([
            'client_id' => $client,
            'host' => 'base.example',
            'port' => 21,
            'protocol' => 'ftps',
            'login' => "b$number",
            'secret' => Crypt::encryptString("Pass-word-$number"),
        ]);
        DB::table('sites')->insert([
            'account_id' => $account,
            'domain' => "b$number.example",
            'base_url' => "https://b$number.example",
            'document_root' => '/',
            'start_pages' => '[]',
            'kept' => '[]',
        ]);
    }
    DB::rollBack();
});
$lists = app(AccountImport::class);
$list = AccountList::read($text);
$time('looking at the list', static fn (): array => $lists->rehearse($list, $list->guess())->counts());
$took = $time('taking it over', static fn (): array => $lists->takeOver($list, $list->guess()));
$time('looking at it again', static fn (): array => $lists->rehearse($list, $list->guess())->counts());
printf("taking over took %.2f of the bare inserts\n", $took / $baseline);
