<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What is wrong with what is stored, until it is right again; and what each sweep of the store did. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('alarms', static function (Blueprint $table): void {
            $table->id();
            $table->string('kind', 40)->unique();
            $table->text('words');
            $table->timestamps();
        });
        Schema::create('store_sweeps', static function (Blueprint $table): void {
            $table->id();
            $table->dateTime('at', 3)->index();
            $table->unsignedInteger('aside_files');
            $table->unsignedBigInteger('aside_bytes');
            $table->unsignedInteger('back_files');
            $table->unsignedInteger('deleted_files');
            $table->unsignedBigInteger('freed_bytes');
        });
        Schema::table('store_days', static function (Blueprint $table): void {
            // When it was counted; what sweeps have moved aside since explains fewer.
            $table->dateTime('counted_at', 3)->nullable();
        });
    }
};
