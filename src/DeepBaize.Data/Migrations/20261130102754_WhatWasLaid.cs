using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class WhatWasLaid : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "deleted_at",
                table: "sessions",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "device",
                table: "attempts",
                type: "character varying(40)",
                maxLength: 40,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "laid_hash",
                table: "attempts",
                type: "character varying(64)",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "laid_steps",
                columns: table => new
                {
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    hash = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    step = table.Column<string>(type: "jsonb", nullable: false),
                    conditions = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_laid_steps", x => new { x.owner_id, x.hash });
                    table.ForeignKey(
                        name: "fk_laid_steps_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_attempts_owner_id_laid_hash",
                table: "attempts",
                columns: new[] { "owner_id", "laid_hash" });

            migrationBuilder.AddForeignKey(
                name: "fk_attempts_laid_steps_owner_id_laid_hash",
                table: "attempts",
                columns: new[] { "owner_id", "laid_hash" },
                principalTable: "laid_steps",
                principalColumns: new[] { "owner_id", "hash" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_attempts_laid_steps_owner_id_laid_hash",
                table: "attempts");

            migrationBuilder.DropTable(
                name: "laid_steps");

            migrationBuilder.DropIndex(
                name: "ix_attempts_owner_id_laid_hash",
                table: "attempts");

            migrationBuilder.DropColumn(
                name: "deleted_at",
                table: "sessions");

            migrationBuilder.DropColumn(
                name: "device",
                table: "attempts");

            migrationBuilder.DropColumn(
                name: "laid_hash",
                table: "attempts");
        }
    }
}
