<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** The passwords of FTP users are bound to where they may be sent; those that are there, to where they went so far. */
return new class extends Migration
{
    private const PORTS = [
        'ftp' => 21,
        'ftps' => 21,
        'ftps-implicit' => 990,
        'sftp' => 22,
    ];

    public function up(): void
    {
        Schema::table('ftp_users', static function (Blueprint $table): void {
            $table->string('secret_for', 64)->nullable();
        });
        $users = DB::table('ftp_users')
            ->join('accounts', 'accounts.id', 'ftp_users.account_id')
            ->whereNotNull('ftp_users.secret')
            ->select(['ftp_users.id', 'host', 'port', 'protocol', 'address', 'ftp_protocol', 'ftp_port'])
            ->get();
        foreach ($users as $user) {
            $protocol = $user->ftp_protocol ?? $user->protocol;
            $port = $user->ftp_port ?? ($user->ftp_protocol === null ? $user->port : self::PORTS[$protocol] ?? 21);
            DB::table('ftp_users')->where('id', $user->id)->update(['secret_for' => hash('sha256', json_encode(
                [strtolower($user->host), (int) $port, $protocol, $user->address],
                JSON_THROW_ON_ERROR,
            ))]);
        }
    }
};
