CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE SEQUENCE "public"."contact_ids" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1;--> statement-breakpoint
CREATE TABLE "attempts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"list_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"provider" text NOT NULL,
	"state" text NOT NULL,
	"answer" jsonb,
	"reserved" bigint NOT NULL,
	"asked_at" timestamp with time zone DEFAULT now() NOT NULL,
	"answered_at" timestamp with time zone,
	"deadline" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "batch_pieces" (
	"batch_id" uuid NOT NULL,
	"byte_offset" bigint NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "batch_pieces_batch_id_byte_offset_pk" PRIMARY KEY("batch_id","byte_offset")
);
--> statement-breakpoint
CREATE TABLE "batches" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"name" text NOT NULL,
	"file_name" text NOT NULL,
	"bytes" bigint NOT NULL,
	"encoding" text NOT NULL,
	"delimiter" text NOT NULL,
	"bom" integer NOT NULL,
	"has_headings" boolean NOT NULL,
	"headings" jsonb NOT NULL,
	"mapping" jsonb NOT NULL,
	"default_country" text,
	"source_kind" text NOT NULL,
	"gathered_on" date,
	"lawful_basis" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"state" text NOT NULL,
	"problem" text,
	"sha256" text,
	"rows" integer DEFAULT 0 NOT NULL,
	"held" integer DEFAULT 0 NOT NULL,
	"with_mobile" integer DEFAULT 0 NOT NULL,
	"job_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "candidates" (
	"attempt_id" uuid NOT NULL,
	"position" smallint NOT NULL,
	"raw" text NOT NULL,
	"score" integer NOT NULL,
	"e164" text,
	"outcome" text NOT NULL,
	CONSTRAINT "candidates_attempt_id_position_pk" PRIMARY KEY("attempt_id","position")
);
--> statement-breakpoint
CREATE TABLE "charges" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "charges_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"list_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"provider" text NOT NULL,
	"subject" text NOT NULL,
	"contact_id" bigint,
	"amount" bigint NOT NULL,
	"reason" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "connections" (
	"provider" text PRIMARY KEY NOT NULL,
	"base_url" text NOT NULL,
	"sealed_key" text,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "contact_cube" (
	"list_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"country" text NOT NULL,
	"verdict" text NOT NULL,
	"line_type" text NOT NULL,
	"line_status" text NOT NULL,
	"known_from" text NOT NULL,
	"lane" text NOT NULL,
	"lane_reason" text NOT NULL,
	"is_readable" boolean NOT NULL,
	"is_dead" boolean NOT NULL,
	"is_filled" boolean NOT NULL,
	"wants_mobile" boolean NOT NULL,
	"is_shared" boolean NOT NULL,
	"is_sent" boolean NOT NULL,
	"is_joined" boolean NOT NULL,
	"has_joined" boolean NOT NULL,
	"contacts" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "contact_emails" (
	"list_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"position" smallint NOT NULL,
	"address" text NOT NULL,
	"kind" text NOT NULL,
	CONSTRAINT "contact_emails_contact_id_position_pk" PRIMARY KEY("contact_id","position")
);
--> statement-breakpoint
CREATE TABLE "contact_numbers" (
	"list_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"position" smallint NOT NULL,
	"e164" text NOT NULL,
	"extension" text,
	"label" text,
	"country" text,
	"line_type" text NOT NULL,
	"is_valid" boolean NOT NULL,
	"origin" text NOT NULL,
	CONSTRAINT "contact_numbers_contact_id_position_pk" PRIMARY KEY("contact_id","position")
);
--> statement-breakpoint
CREATE TABLE "contacts" (
	"id" bigint PRIMARY KEY NOT NULL,
	"list_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"row" integer NOT NULL,
	"full_name" text NOT NULL,
	"given_name" text NOT NULL,
	"family_name" text NOT NULL,
	"company" text NOT NULL,
	"title" text NOT NULL,
	"city" text NOT NULL,
	"region" text NOT NULL,
	"postal_code" text NOT NULL,
	"domain" text NOT NULL,
	"profile" text NOT NULL,
	"country" text NOT NULL,
	"number" text,
	"raw_number" text NOT NULL,
	"email" text,
	"line_type" text NOT NULL,
	"line_status" text NOT NULL,
	"known_from" text NOT NULL,
	"verdict" text NOT NULL,
	"repairs" text[] NOT NULL,
	"is_readable" boolean NOT NULL,
	"is_dead" boolean NOT NULL,
	"is_filled" boolean NOT NULL,
	"wants_mobile" boolean NOT NULL,
	"is_shared" boolean DEFAULT false NOT NULL,
	"is_sent" boolean DEFAULT false NOT NULL,
	"lane" text NOT NULL,
	"lane_reason" text NOT NULL,
	"joined" integer DEFAULT 0 NOT NULL,
	"joined_into" bigint,
	"search" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "edition_members" (
	"edition_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	CONSTRAINT "edition_members_edition_id_contact_id_pk" PRIMARY KEY("edition_id","contact_id")
);
--> statement-breakpoint
CREATE TABLE "edition_pieces" (
	"edition_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "edition_pieces_edition_id_position_pk" PRIMARY KEY("edition_id","position")
);
--> statement-breakpoint
CREATE TABLE "editions" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"destination" text NOT NULL,
	"form" text NOT NULL,
	"filter" text NOT NULL,
	"file_name" text NOT NULL,
	"state" text DEFAULT 'preparing' NOT NULL,
	"people" integer DEFAULT 0 NOT NULL,
	"left_out" integer DEFAULT 0 NOT NULL,
	"bytes" bigint DEFAULT 0 NOT NULL,
	"sha256" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "fill_runs" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"list_id" uuid NOT NULL,
	"provider_order" text[] NOT NULL,
	"checks_lines" boolean NOT NULL,
	"budget" bigint NOT NULL,
	"spent" bigint DEFAULT 0 NOT NULL,
	"reserved" bigint DEFAULT 0 NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "fill_searches" (
	"job_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"state" text NOT NULL,
	CONSTRAINT "fill_searches_job_id_contact_id_pk" PRIMARY KEY("job_id","contact_id")
);
--> statement-breakpoint
CREATE TABLE "fills" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"attempt_id" uuid NOT NULL,
	"provider" text NOT NULL,
	"e164" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone,
	CONSTRAINT "fills_attempt_id_unique" UNIQUE("attempt_id")
);
--> statement-breakpoint
CREATE TABLE "held_rows" (
	"batch_id" uuid NOT NULL,
	"row" integer NOT NULL,
	"reason" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "held_rows_batch_id_row_pk" PRIMARY KEY("batch_id","row")
);
--> statement-breakpoint
CREATE TABLE "idempotency_keys" (
	"person_id" text NOT NULL,
	"key" text NOT NULL,
	"call" text NOT NULL,
	"answer" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "idempotency_keys_person_id_key_pk" PRIMARY KEY("person_id","key")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"kind" text NOT NULL,
	"list_id" uuid NOT NULL,
	"state" text DEFAULT 'queued' NOT NULL,
	"phase" text DEFAULT '' NOT NULL,
	"done" bigint DEFAULT 0 NOT NULL,
	"total" bigint,
	"unit" text NOT NULL,
	"problem" text,
	"payload" jsonb NOT NULL,
	"cursor" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"result" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"started_at" timestamp with time zone,
	"finished_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "joins" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "joins_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"list_id" uuid NOT NULL,
	"survivor_id" bigint NOT NULL,
	"member_id" bigint NOT NULL,
	"key_kind" text NOT NULL,
	"key" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "line_checks" (
	"job_id" uuid NOT NULL,
	"e164" text NOT NULL,
	"line_type" text,
	"status" text,
	"carrier" text,
	"cost" bigint,
	"answered_at" timestamp with time zone,
	CONSTRAINT "line_checks_job_id_e164_pk" PRIMARY KEY("job_id","e164")
);
--> statement-breakpoint
CREATE TABLE "lists" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "numbers" (
	"e164" text PRIMARY KEY NOT NULL,
	"line_type" text,
	"status" text,
	"carrier" text,
	"is_ported" boolean,
	"time_zone" text,
	"last_seen" date,
	"checked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "rows" (
	"batch_id" uuid NOT NULL,
	"row" integer NOT NULL,
	"text" text NOT NULL,
	CONSTRAINT "rows_batch_id_row_pk" PRIMARY KEY("batch_id","row")
);
--> statement-breakpoint
CREATE TABLE "sign_in_accounts" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rate_limits" (
	"id" text PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"count" integer NOT NULL,
	"last_request" bigint NOT NULL,
	CONSTRAINT "rate_limits_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"id" text PRIMARY KEY NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"token" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"user_id" text NOT NULL,
	CONSTRAINT "sessions_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"role" text DEFAULT 'viewer' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "people_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "verifications" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "attempts" ADD CONSTRAINT "attempts_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batches" ADD CONSTRAINT "batches_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charges" ADD CONSTRAINT "charges_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "editions" ADD CONSTRAINT "editions_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill_runs" ADD CONSTRAINT "fill_runs_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fills" ADD CONSTRAINT "fills_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "joins" ADD CONSTRAINT "joins_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sign_in_accounts" ADD CONSTRAINT "sign_in_accounts_user_id_people_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_user_id_people_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "attempts_once" ON "attempts" USING btree ("job_id","contact_id","provider");--> statement-breakpoint
CREATE INDEX "attempts_contact" ON "attempts" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "batches_list" ON "batches" USING btree ("list_id","created_at");--> statement-breakpoint
CREATE UNIQUE INDEX "charges_once" ON "charges" USING btree ("job_id","provider","subject");--> statement-breakpoint
CREATE INDEX "charges_list" ON "charges" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "contact_cube_list" ON "contact_cube" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "contact_emails_address" ON "contact_emails" USING btree ("address","list_id");--> statement-breakpoint
CREATE INDEX "contact_emails_list" ON "contact_emails" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "contact_numbers_e164" ON "contact_numbers" USING btree ("e164","list_id");--> statement-breakpoint
CREATE INDEX "contact_numbers_list" ON "contact_numbers" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "contacts_list" ON "contacts" USING btree ("list_id","id");--> statement-breakpoint
CREATE INDEX "contacts_batch" ON "contacts" USING btree ("batch_id","row");--> statement-breakpoint
CREATE INDEX "contacts_joined_into" ON "contacts" USING btree ("joined_into") WHERE joined_into is not null;--> statement-breakpoint
CREATE INDEX "contacts_search" ON "contacts" USING gin (search gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "edition_members_contact" ON "edition_members" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "editions_list" ON "editions" USING btree ("list_id","created_at");--> statement-breakpoint
CREATE INDEX "fill_searches_state" ON "fill_searches" USING btree ("job_id","state","contact_id");--> statement-breakpoint
CREATE INDEX "fills_contact" ON "fills" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "jobs_list" ON "jobs" USING btree ("list_id","created_at");--> statement-breakpoint
CREATE UNIQUE INDEX "joins_member_once" ON "joins" USING btree ("member_id") WHERE undone_at is null;--> statement-breakpoint
CREATE INDEX "joins_survivor" ON "joins" USING btree ("survivor_id");--> statement-breakpoint
CREATE INDEX "joins_list" ON "joins" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "line_checks_e164" ON "line_checks" USING btree ("e164");