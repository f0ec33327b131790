using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class Practice : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "routines",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    content = table.Column<string>(type: "jsonb", nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    updated_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    deleted_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_routines", x => x.id);
                    table.ForeignKey(
                        name: "fk_routines_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "sessions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    player_id = table.Column<Guid>(type: "uuid", nullable: true),
                    table_id = table.Column<Guid>(type: "uuid", nullable: true),
                    cue_id = table.Column<Guid>(type: "uuid", nullable: true),
                    started_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    ended_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    plan = table.Column<string>(type: "jsonb", nullable: false),
                    now = table.Column<string>(type: "jsonb", nullable: true),
                    note = table.Column<string>(type: "character varying(2000)", maxLength: 2000, nullable: false),
                    changes = table.Column<long>(type: "bigint", nullable: false),
                    updated_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sessions", x => x.id);
                    table.ForeignKey(
                        name: "fk_sessions_cues_cue_id",
                        column: x => x.cue_id,
                        principalTable: "cues",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_sessions_players_player_id",
                        column: x => x.player_id,
                        principalTable: "players",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_sessions_tables_table_id",
                        column: x => x.table_id,
                        principalTable: "tables",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_sessions_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "attempts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    session_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    player_id = table.Column<Guid>(type: "uuid", nullable: true),
                    table_id = table.Column<Guid>(type: "uuid", nullable: true),
                    cue_id = table.Column<Guid>(type: "uuid", nullable: true),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    routine = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    step = table.Column<int>(type: "integer", nullable: false),
                    is_mirrored = table.Column<bool>(type: "boolean", nullable: false),
                    said = table.Column<bool>(type: "boolean", nullable: true),
                    is_done = table.Column<bool>(type: "boolean", nullable: false),
                    reasons = table.Column<string[]>(type: "text[]", nullable: false),
                    body = table.Column<string[]>(type: "text[]", nullable: false),
                    white_x = table.Column<double>(type: "double precision", nullable: true),
                    white_y = table.Column<double>(type: "double precision", nullable: true),
                    ball_x = table.Column<double>(type: "double precision", nullable: true),
                    ball_y = table.Column<double>(type: "double precision", nullable: true),
                    score = table.Column<int>(type: "integer", nullable: true),
                    kinds = table.Column<string>(type: "jsonb", nullable: false),
                    stroke = table.Column<string>(type: "jsonb", nullable: true),
                    group = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    is_withdrawn = table.Column<bool>(type: "boolean", nullable: false),
                    note = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    changed_in = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_attempts", x => x.id);
                    table.ForeignKey(
                        name: "fk_attempts_sessions_session_id",
                        column: x => x.session_id,
                        principalTable: "sessions",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_attempts_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_attempts_owner_id_routine_at",
                table: "attempts",
                columns: new[] { "owner_id", "routine", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_attempts_session_id_changed_in",
                table: "attempts",
                columns: new[] { "session_id", "changed_in" });

            migrationBuilder.CreateIndex(
                name: "ix_routines_owner_id_updated_at",
                table: "routines",
                columns: new[] { "owner_id", "updated_at" });

            migrationBuilder.CreateIndex(
                name: "ix_sessions_cue_id",
                table: "sessions",
                column: "cue_id");

            migrationBuilder.CreateIndex(
                name: "ix_sessions_owner_id_started_at",
                table: "sessions",
                columns: new[] { "owner_id", "started_at" });

            migrationBuilder.CreateIndex(
                name: "ix_sessions_player_id",
                table: "sessions",
                column: "player_id");

            migrationBuilder.CreateIndex(
                name: "ix_sessions_table_id",
                table: "sessions",
                column: "table_id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "attempts");

            migrationBuilder.DropTable(
                name: "routines");

            migrationBuilder.DropTable(
                name: "sessions");
        }
    }
}
