CREATE TABLE "audience_members" (
	"audience_id" uuid NOT NULL,
	"key" "bytea" NOT NULL,
	"contact_id" bigint,
	"cells" text[] NOT NULL,
	"delivery_id" uuid NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	"owed_since" timestamp with time zone,
	CONSTRAINT "audience_members_audience_id_key_pk" PRIMARY KEY("audience_id","key")
);
--> statement-breakpoint
CREATE TABLE "audiences" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"name" text NOT NULL,
	"destination" text NOT NULL,
	"takes" text NOT NULL,
	"form" text NOT NULL,
	"filter" text NOT NULL,
	"suppression_list_id" uuid,
	"purpose" text NOT NULL,
	"account_id" text NOT NULL,
	"account_name" text NOT NULL,
	"within" uuid,
	"keeps_days" integer,
	"refresh_days" integer NOT NULL,
	"removes_by_itself" boolean NOT NULL,
	"remote_id" text,
	"state" text DEFAULT 'not-sent' NOT NULL,
	"reason" text,
	"matched" integer,
	"lapses_at" timestamp with time zone,
	"told_at" timestamp with time zone,
	"look_at" timestamp with time zone,
	"seen_version" bigint DEFAULT -1 NOT NULL,
	"similar_to" jsonb,
	"removed_at" timestamp with time zone,
	"made_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "calendars" (
	"person_id" text PRIMARY KEY NOT NULL,
	"secret_hash" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "calendars_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "deliveries" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"audience_id" uuid NOT NULL,
	"edition_id" uuid,
	"job_id" uuid,
	"way" text NOT NULL,
	"state" text DEFAULT 'under-way' NOT NULL,
	"added" integer DEFAULT 0 NOT NULL,
	"removed" integer DEFAULT 0 NOT NULL,
	"renewed" integer DEFAULT 0 NOT NULL,
	"refused_lines" integer DEFAULT 0 NOT NULL,
	"refused_parts" integer DEFAULT 0 NOT NULL,
	"refusal" text,
	"forecast" jsonb,
	"matched" integer,
	"started_by" text,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "destination_keys" (
	"destination" text PRIMARY KEY NOT NULL,
	"address" text NOT NULL,
	"sealed_key" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "edition_left_out" (
	"edition_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	CONSTRAINT "edition_left_out_edition_id_contact_id_pk" PRIMARY KEY("edition_id","contact_id")
);
--> statement-breakpoint
CREATE TABLE "edition_lines" (
	"edition_id" uuid NOT NULL,
	"key" "bytea" NOT NULL,
	"contact_id" bigint,
	"cells" text[] NOT NULL,
	CONSTRAINT "edition_lines_edition_id_key_pk" PRIMARY KEY("edition_id","key")
);
--> statement-breakpoint
CREATE TABLE "trials" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"audience_id" uuid NOT NULL,
	"remote_id" text NOT NULL,
	"exclude" uuid[] NOT NULL,
	"daily" numeric NOT NULL,
	"days" integer NOT NULL,
	"state" text DEFAULT 'on' NOT NULL,
	"reach" integer,
	"spent" numeric,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "batch_id" uuid;--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "audience_id" uuid;--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "mix" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "mix_by_source" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "audience_members" ADD CONSTRAINT "audience_members_audience_id_audiences_id_fk" FOREIGN KEY ("audience_id") REFERENCES "public"."audiences"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audiences" ADD CONSTRAINT "audiences_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_audience_id_audiences_id_fk" FOREIGN KEY ("audience_id") REFERENCES "public"."audiences"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edition_left_out" ADD CONSTRAINT "edition_left_out_edition_id_editions_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."editions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edition_lines" ADD CONSTRAINT "edition_lines_edition_id_editions_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."editions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trials" ADD CONSTRAINT "trials_audience_id_audiences_id_fk" FOREIGN KEY ("audience_id") REFERENCES "public"."audiences"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audience_members_contact" ON "audience_members" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "audience_members_owed" ON "audience_members" USING btree ("audience_id") WHERE owed_since is not null;--> statement-breakpoint
CREATE INDEX "audiences_list" ON "audiences" USING btree ("list_id","created_at");--> statement-breakpoint
CREATE INDEX "deliveries_audience" ON "deliveries" USING btree ("audience_id","started_at");--> statement-breakpoint
CREATE UNIQUE INDEX "deliveries_one_at_a_time" ON "deliveries" USING btree ("audience_id") WHERE state = 'under-way';--> statement-breakpoint
CREATE INDEX "edition_lines_contact" ON "edition_lines" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "trials_audience" ON "trials" USING btree ("audience_id","started_at");--> statement-breakpoint
ALTER TABLE "editions" ADD CONSTRAINT "editions_audience_id_audiences_id_fk" FOREIGN KEY ("audience_id") REFERENCES "public"."audiences"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "editions_audience" ON "editions" USING btree ("audience_id","created_at");