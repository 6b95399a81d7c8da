<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** A file that a worker has fetched for somebody to look at is found again by what it was fetched for. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('errands', static function (Blueprint $table): void {
            $table->char('fetched_for', 64)->nullable();
            $table->index('fetched_for');
        });
    }
};
