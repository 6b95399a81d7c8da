<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;
use Illuminate\Support\Str;

/**
 * Work waits under its name and the number of what it is about, not as an object of a class, and knows whose turn it
 * is; what waits when this is carried out goes on waiting.
 */
return new class extends Migration
{
    private const TASKS = [
        'App\Accounts\ConnectAccount' => ['connect_account', 'account'],
        'App\Backups\RehearseBackup' => ['rehearse_backup', 'backup'],
        'App\Backups\TakeBackup' => ['take_backup', 'backup'],
        'App\Deployments\AskOpenAddresses' => ['ask_open_addresses', 'site'],
        'App\Deployments\CarryOutDeployment' => ['carry_out_deployment', 'deployment'],
        'App\Deployments\MakePlan' => ['make_plan', 'deployment'],
        'App\Deployments\TidyDeployment' => ['tidy_deployment', 'deployment'],
        'App\FtpUsers\CarryOutBulk' => ['carry_out_bulk', 'change'],
        'App\FtpUsers\ProveFtpUser' => ['prove_ftp_user', 'user'],
        'App\Watch\ClearStore' => ['clear_store', 'person'],
        'App\Watch\SweepAccount' => ['sweep_account', 'account'],
    ];

    public function up(): void
    {
        Schema::table('jobs', static function (Blueprint $table): void {
            $table->string('turn', 190)->nullable()->after('host');
        });
        foreach (DB::table('jobs')->whereNull('reserved_at')->get() as $job) {
            $order = self::order($job);
            $order === null
                // What it was about is ordered anew: by its row, or by the watch, which orders what is due.
                ? DB::table('jobs')->where('id', $job->id)->delete()
                : DB::table('jobs')->where('id', $job->id)->update(['payload' => self::payload($order)]);
        }
    }

    /** @return array<string, mixed>|null null where it says nothing that is understood */
    private static function order(object $job): ?array
    {
        $payload = json_decode($job->payload, true);
        $object = @unserialize((string) ($payload['data']['command'] ?? ''), ['allowed_classes' => false]);
        $given = [];
        foreach (is_object($object) ? (array) $object : [] as $key => $value) {
            $given[$key] = $value;
        }
        [$task, $row] = self::TASKS[$payload['data']['commandName'] ?? ''] ?? [null, null];
        if (($payload['data']['commandName'] ?? '') === 'App\Errands\RunErrand') {
            $row = 'errand';
            $task = DB::table('errands')->where('id', $given['errand'] ?? 0)->value('kind');
        }
        if ($task === 'clear_store' && ($given['empties'] ?? false)) {
            $task = 'empty_store_aside';
        }

        return $task === null || ! is_int($given[$row] ?? null) ? null : [
            'v' => 1,
            'task' => $task,
            'row' => $given[$row],
            'person' => $task === 'connect_account' ? $given['person'] ?? null : null,
            'host' => $job->host,
            'turn' => null,
        ];
    }

    /** @param  array<string, mixed>  $order */
    private static function payload(array $order): string
    {
        return json_encode([
            'uuid' => (string) Str::uuid(),
            'displayName' => 'App\Work\RunTask',
            'job' => 'App\Work\RunTask',
            'maxTries' => null,
            'maxExceptions' => null,
            'failOnTimeout' => false,
            'backoff' => null,
            'timeout' => null,
            'data' => $order,
        ], JSON_THROW_ON_ERROR);
    }
};
