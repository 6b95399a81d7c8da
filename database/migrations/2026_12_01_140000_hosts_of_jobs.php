<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Jobs know whose answers they wait for, and which worker has them in hand. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('jobs', static function (Blueprint $table): void {
            $table->string('host')->nullable()->after('queue');
            $table->string('reserved_by', 40)->nullable()->after('reserved_at');
            $table->index(['reserved_at', 'available_at', 'queue', 'host'], 'jobs_waiting');
        });
    }
};
