<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Names that lie at a host and are not in a backup, since the protocol cannot carry them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('backups', static function (Blueprint $table): void {
            $table->json('skipped')->nullable();
        });
    }
};
