using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class LearningTrials : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "learning_trials",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    table_id = table.Column<Guid>(type: "uuid", nullable: false),
                    cue_id = table.Column<Guid>(type: "uuid", nullable: true),
                    player_id = table.Column<Guid>(type: "uuid", nullable: true),
                    played_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    content = table.Column<string>(type: "jsonb", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_learning_trials", x => x.id);
                    table.ForeignKey(
                        name: "fk_learning_trials_cues_cue_id",
                        column: x => x.cue_id,
                        principalTable: "cues",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_learning_trials_players_player_id",
                        column: x => x.player_id,
                        principalTable: "players",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_learning_trials_tables_table_id",
                        column: x => x.table_id,
                        principalTable: "tables",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_learning_trials_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "taken_figures",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(10)", maxLength: 10, nullable: false),
                    thing_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    taken_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    before = table.Column<string>(type: "jsonb", nullable: false),
                    after = table.Column<string>(type: "jsonb", nullable: false),
                    skill_before = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: true),
                    undone_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_taken_figures", x => x.id);
                    table.ForeignKey(
                        name: "fk_taken_figures_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_learning_trials_cue_id",
                table: "learning_trials",
                column: "cue_id");

            migrationBuilder.CreateIndex(
                name: "ix_learning_trials_owner_id",
                table: "learning_trials",
                column: "owner_id");

            migrationBuilder.CreateIndex(
                name: "ix_learning_trials_player_id",
                table: "learning_trials",
                column: "player_id");

            migrationBuilder.CreateIndex(
                name: "ix_learning_trials_table_id_played_at",
                table: "learning_trials",
                columns: new[] { "table_id", "played_at" });

            migrationBuilder.CreateIndex(
                name: "ix_taken_figures_owner_id",
                table: "taken_figures",
                column: "owner_id");

            migrationBuilder.CreateIndex(
                name: "ix_taken_figures_thing_id_taken_at",
                table: "taken_figures",
                columns: new[] { "thing_id", "taken_at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "learning_trials");

            migrationBuilder.DropTable(
                name: "taken_figures");
        }
    }
}
