<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Directories that two accounts have, each by its own path: a token put there through one was seen in the other. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('shared_directories', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained()->cascadeOnDelete();
            $table->string('path', 1000);
            $table->foreignId('other_id')->constrained('accounts')->cascadeOnDelete();
            $table->string('other_path', 1000);
            $table->dateTime('proven_at', 3);
        });
    }
};
