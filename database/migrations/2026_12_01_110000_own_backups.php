<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * Cellarium's own backups, as they lie where the settings say, and the last time one was brought back as a rehearsal.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('own_backups', static function (Blueprint $table): void {
            $table->id();
            $table->string('name')->unique();
            $table->unsignedBigInteger('bytes');
            $table->unsignedInteger('lists');
            $table->dateTime('taken_at')->index();
            $table->dateTime('rehearsed_at')->nullable()->index();
            // What the rehearsal found, in a sentence; and why it failed, null where it did not.
            $table->string('rehearsal', 1000)->nullable();
            $table->string('rehearsal_trouble', 1000)->nullable();
            $table->timestamps();
        });
    }
};
