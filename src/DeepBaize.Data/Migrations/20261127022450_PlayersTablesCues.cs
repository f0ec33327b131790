using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class PlayersTablesCues : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(name: "ix_corrections_owner_id_route", table: "corrections");

            migrationBuilder.AddColumn<Guid>(name: "cue_id", table: "users", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "player_id", table: "users", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "table_id", table: "users", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "cue_id", table: "positions", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "player_id", table: "positions", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "table_id", table: "positions", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "cue_id", table: "frames", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "player_id", table: "frames", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "table_id", table: "frames", type: "uuid", nullable: true);

            migrationBuilder.AddColumn<Guid>(name: "table_id", table: "corrections", type: "uuid", nullable: true);

            migrationBuilder.CreateTable(
                name: "cues",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    tip = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    conditions = table.Column<string>(type: "jsonb", nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    updated_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    deleted_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_cues", x => x.id);
                    table.ForeignKey(
                        name: "fk_cues_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "players",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    hand = table.Column<string>(type: "character varying(10)", maxLength: 10, nullable: false),
                    height = table.Column<double>(type: "double precision", nullable: false),
                    skill = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    own_skill = table.Column<string>(type: "jsonb", nullable: true),
                    natural_elevation = table.Column<double>(type: "double precision", nullable: false),
                    side_habit = table.Column<string>(type: "character varying(10)", maxLength: 10, nullable: false),
                    pace_of_five = table.Column<double>(type: "double precision", nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    updated_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    deleted_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_players", x => x.id);
                    table.ForeignKey(
                        name: "fk_players_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "tables",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    conditions = table.Column<string>(type: "jsonb", nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    updated_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    deleted_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_tables", x => x.id);
                    table.ForeignKey(
                        name: "fk_tables_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            // What there is is the first player's, table's and cue's: the figures of the user, the conditions that most positions have, the
            // corrections of escapes.
            migrationBuilder.Sql(
                """
                INSERT INTO players (id, owner_id, name, hand, height, skill, own_skill, natural_elevation, side_habit, pace_of_five,
                                     created_at, updated_at)
                SELECT gen_random_uuid(), id, left(split_part(name, ',', 1), 80), hand, height, skill, own_skill, natural_elevation,
                       side_habit, 5, created_at, now() FROM users;
                WITH usual AS (
                    SELECT DISTINCT ON (owner_id) owner_id, coalesce(content->'conditions', '{}') AS figures FROM positions
                    WHERE deleted_at IS NULL GROUP BY 1, 2 ORDER BY 1, count(*) DESC, 2)
                INSERT INTO tables (id, owner_id, name, conditions, created_at, updated_at)
                SELECT gen_random_uuid(), u.id, 'My table',
                       coalesce(figures, '{}') - 'cueMass' - 'tipRestitution' - 'endMassRatio', u.created_at, now()
                FROM users u LEFT JOIN usual ON owner_id = u.id;
                WITH usual AS (
                    SELECT DISTINCT ON (owner_id) owner_id, coalesce(content->'conditions', '{}') AS figures FROM positions
                    WHERE deleted_at IS NULL GROUP BY 1, 2 ORDER BY 1, count(*) DESC, 2)
                INSERT INTO cues (id, owner_id, name, tip, conditions, created_at, updated_at)
                SELECT gen_random_uuid(), u.id, 'My cue', '',
                       (SELECT coalesce(jsonb_object_agg(key, value), '{}') FROM jsonb_each(coalesce(figures, '{}'))
                        WHERE key IN ('cueMass', 'tipRestitution', 'endMassRatio')), u.created_at, now()
                FROM users u LEFT JOIN usual ON owner_id = u.id;
                UPDATE users u SET player_id = p.id, table_id = t.id, cue_id = c.id FROM players p, tables t, cues c
                    WHERE p.owner_id = u.id AND t.owner_id = u.id AND c.owner_id = u.id;
                UPDATE positions r SET player_id = u.player_id, table_id = u.table_id, cue_id = u.cue_id
                    FROM users u WHERE u.id = r.owner_id;
                UPDATE frames r SET player_id = u.player_id, table_id = u.table_id, cue_id = u.cue_id
                    FROM users u WHERE u.id = r.owner_id;
                UPDATE corrections r SET table_id = u.table_id FROM users u WHERE u.id = r.owner_id;
                """
            );
            migrationBuilder.AlterColumn<Guid>(
                name: "table_id",
                table: "corrections",
                type: "uuid",
                nullable: false,
                oldNullable: true,
                oldType: "uuid"
            );

            migrationBuilder.DropColumn(name: "hand", table: "users");

            migrationBuilder.DropColumn(name: "height", table: "users");

            migrationBuilder.DropColumn(name: "natural_elevation", table: "users");

            migrationBuilder.DropColumn(name: "own_skill", table: "users");

            migrationBuilder.DropColumn(name: "side_habit", table: "users");

            migrationBuilder.DropColumn(name: "skill", table: "users");

            migrationBuilder.CreateIndex(name: "ix_users_cue_id", table: "users", column: "cue_id");

            migrationBuilder.CreateIndex(name: "ix_users_player_id", table: "users", column: "player_id");

            migrationBuilder.CreateIndex(name: "ix_users_table_id", table: "users", column: "table_id");

            migrationBuilder.CreateIndex(name: "ix_positions_cue_id", table: "positions", column: "cue_id");

            migrationBuilder.CreateIndex(name: "ix_positions_player_id", table: "positions", column: "player_id");

            migrationBuilder.CreateIndex(name: "ix_positions_table_id", table: "positions", column: "table_id");

            migrationBuilder.CreateIndex(name: "ix_frames_cue_id", table: "frames", column: "cue_id");

            migrationBuilder.CreateIndex(name: "ix_frames_player_id", table: "frames", column: "player_id");

            migrationBuilder.CreateIndex(name: "ix_frames_table_id", table: "frames", column: "table_id");

            migrationBuilder.CreateIndex(name: "ix_corrections_owner_id", table: "corrections", column: "owner_id");

            migrationBuilder.CreateIndex(
                name: "ix_corrections_table_id_route",
                table: "corrections",
                columns: new[] { "table_id", "route" },
                unique: true
            );

            migrationBuilder.CreateIndex(name: "ix_cues_owner_id_name", table: "cues", columns: new[] { "owner_id", "name" });

            migrationBuilder.CreateIndex(name: "ix_players_owner_id_name", table: "players", columns: new[] { "owner_id", "name" });

            migrationBuilder.CreateIndex(name: "ix_tables_owner_id_name", table: "tables", columns: new[] { "owner_id", "name" });

            migrationBuilder.AddForeignKey(
                name: "fk_corrections_tables_table_id",
                table: "corrections",
                column: "table_id",
                principalTable: "tables",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade
            );

            migrationBuilder.AddForeignKey(
                name: "fk_frames_cues_cue_id",
                table: "frames",
                column: "cue_id",
                principalTable: "cues",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_frames_players_player_id",
                table: "frames",
                column: "player_id",
                principalTable: "players",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_frames_tables_table_id",
                table: "frames",
                column: "table_id",
                principalTable: "tables",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_positions_cues_cue_id",
                table: "positions",
                column: "cue_id",
                principalTable: "cues",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_positions_players_player_id",
                table: "positions",
                column: "player_id",
                principalTable: "players",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_positions_tables_table_id",
                table: "positions",
                column: "table_id",
                principalTable: "tables",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_users_cues_cue_id",
                table: "users",
                column: "cue_id",
                principalTable: "cues",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_users_players_player_id",
                table: "users",
                column: "player_id",
                principalTable: "players",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );

            migrationBuilder.AddForeignKey(
                name: "fk_users_tables_table_id",
                table: "users",
                column: "table_id",
                principalTable: "tables",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "hand",
                table: "users",
                type: "character varying(10)",
                maxLength: 10,
                nullable: false,
                defaultValue: "right"
            );

            migrationBuilder.AddColumn<double>(
                name: "height",
                table: "users",
                type: "double precision",
                nullable: false,
                defaultValue: 1.75
            );

            migrationBuilder.AddColumn<double>(
                name: "natural_elevation",
                table: "users",
                type: "double precision",
                nullable: false,
                defaultValue: 3.0
            );

            migrationBuilder.AddColumn<string>(name: "own_skill", table: "users", type: "jsonb", nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "side_habit",
                table: "users",
                type: "character varying(10)",
                maxLength: 10,
                nullable: false,
                defaultValue: "plain"
            );

            migrationBuilder.AddColumn<string>(
                name: "skill",
                table: "users",
                type: "character varying(20)",
                maxLength: 20,
                nullable: false,
                defaultValue: "county"
            );

            // Of several the one in hand; of corrections those of its table.
            migrationBuilder.Sql(
                """
                UPDATE users u SET hand = p.hand, height = p.height, skill = p.skill, own_skill = p.own_skill,
                    natural_elevation = p.natural_elevation, side_habit = p.side_habit FROM players p WHERE p.id = u.player_id;
                DELETE FROM corrections c USING users u WHERE u.id = c.owner_id AND c.table_id <> u.table_id;
                """
            );

            migrationBuilder.DropForeignKey(name: "fk_corrections_tables_table_id", table: "corrections");

            migrationBuilder.DropForeignKey(name: "fk_frames_cues_cue_id", table: "frames");

            migrationBuilder.DropForeignKey(name: "fk_frames_players_player_id", table: "frames");

            migrationBuilder.DropForeignKey(name: "fk_frames_tables_table_id", table: "frames");

            migrationBuilder.DropForeignKey(name: "fk_positions_cues_cue_id", table: "positions");

            migrationBuilder.DropForeignKey(name: "fk_positions_players_player_id", table: "positions");

            migrationBuilder.DropForeignKey(name: "fk_positions_tables_table_id", table: "positions");

            migrationBuilder.DropForeignKey(name: "fk_users_cues_cue_id", table: "users");

            migrationBuilder.DropForeignKey(name: "fk_users_players_player_id", table: "users");

            migrationBuilder.DropForeignKey(name: "fk_users_tables_table_id", table: "users");

            migrationBuilder.DropTable(name: "cues");

            migrationBuilder.DropTable(name: "players");

            migrationBuilder.DropTable(name: "tables");

            migrationBuilder.DropIndex(name: "ix_users_cue_id", table: "users");

            migrationBuilder.DropIndex(name: "ix_users_player_id", table: "users");

            migrationBuilder.DropIndex(name: "ix_users_table_id", table: "users");

            migrationBuilder.DropIndex(name: "ix_positions_cue_id", table: "positions");

            migrationBuilder.DropIndex(name: "ix_positions_player_id", table: "positions");

            migrationBuilder.DropIndex(name: "ix_positions_table_id", table: "positions");

            migrationBuilder.DropIndex(name: "ix_frames_cue_id", table: "frames");

            migrationBuilder.DropIndex(name: "ix_frames_player_id", table: "frames");

            migrationBuilder.DropIndex(name: "ix_frames_table_id", table: "frames");

            migrationBuilder.DropIndex(name: "ix_corrections_owner_id", table: "corrections");

            migrationBuilder.DropIndex(name: "ix_corrections_table_id_route", table: "corrections");

            migrationBuilder.DropColumn(name: "cue_id", table: "users");

            migrationBuilder.DropColumn(name: "player_id", table: "users");

            migrationBuilder.DropColumn(name: "table_id", table: "users");

            migrationBuilder.DropColumn(name: "cue_id", table: "positions");

            migrationBuilder.DropColumn(name: "player_id", table: "positions");

            migrationBuilder.DropColumn(name: "table_id", table: "positions");

            migrationBuilder.DropColumn(name: "cue_id", table: "frames");

            migrationBuilder.DropColumn(name: "player_id", table: "frames");

            migrationBuilder.DropColumn(name: "table_id", table: "frames");

            migrationBuilder.DropColumn(name: "table_id", table: "corrections");

            migrationBuilder.CreateIndex(
                name: "ix_corrections_owner_id_route",
                table: "corrections",
                columns: new[] { "owner_id", "route" },
                unique: true
            );
        }
    }
}
