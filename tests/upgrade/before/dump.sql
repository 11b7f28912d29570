/*M!999999\- enable the sandbox mode */ 
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `auth_group` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `name` varchar(150) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `name` (`name`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `auth_group_permissions` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `group_id` int(11) NOT NULL,
  `permission_id` int(11) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `auth_group_permissions_group_id_permission_id_0cd325b0_uniq` (`group_id`,`permission_id`),
  KEY `auth_group_permissio_permission_id_84c5c92e_fk_auth_perm` (`permission_id`),
  CONSTRAINT `auth_group_permissio_permission_id_84c5c92e_fk_auth_perm` FOREIGN KEY (`permission_id`) REFERENCES `auth_permission` (`id`),
  CONSTRAINT `auth_group_permissions_group_id_b120cbf9_fk_auth_group_id` FOREIGN KEY (`group_id`) REFERENCES `auth_group` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `auth_permission` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `name` varchar(255) NOT NULL,
  `content_type_id` int(11) NOT NULL,
  `codename` varchar(100) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `auth_permission_content_type_id_codename_01ab375a_uniq` (`content_type_id`,`codename`),
  CONSTRAINT `auth_permission_content_type_id_2f476e4b_fk_django_co` FOREIGN KEY (`content_type_id`) REFERENCES `django_content_type` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=233 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `auth_permission` VALUES (1,'Can add content type',1,'add_contenttype');
INSERT INTO `auth_permission` VALUES (2,'Can change content type',1,'change_contenttype');
INSERT INTO `auth_permission` VALUES (3,'Can delete content type',1,'delete_contenttype');
INSERT INTO `auth_permission` VALUES (4,'Can view content type',1,'view_contenttype');
INSERT INTO `auth_permission` VALUES (5,'Can add permission',2,'add_permission');
INSERT INTO `auth_permission` VALUES (6,'Can change permission',2,'change_permission');
INSERT INTO `auth_permission` VALUES (7,'Can delete permission',2,'delete_permission');
INSERT INTO `auth_permission` VALUES (8,'Can view permission',2,'view_permission');
INSERT INTO `auth_permission` VALUES (9,'Can add group',3,'add_group');
INSERT INTO `auth_permission` VALUES (10,'Can change group',3,'change_group');
INSERT INTO `auth_permission` VALUES (11,'Can delete group',3,'delete_group');
INSERT INTO `auth_permission` VALUES (12,'Can view group',3,'view_group');
INSERT INTO `auth_permission` VALUES (13,'Can add session',4,'add_session');
INSERT INTO `auth_permission` VALUES (14,'Can change session',4,'change_session');
INSERT INTO `auth_permission` VALUES (15,'Can delete session',4,'delete_session');
INSERT INTO `auth_permission` VALUES (16,'Can view session',4,'view_session');
INSERT INTO `auth_permission` VALUES (17,'Can add access attempt',5,'add_accessattempt');
INSERT INTO `auth_permission` VALUES (18,'Can change access attempt',5,'change_accessattempt');
INSERT INTO `auth_permission` VALUES (19,'Can delete access attempt',5,'delete_accessattempt');
INSERT INTO `auth_permission` VALUES (20,'Can view access attempt',5,'view_accessattempt');
INSERT INTO `auth_permission` VALUES (21,'Can add access log',6,'add_accesslog');
INSERT INTO `auth_permission` VALUES (22,'Can change access log',6,'change_accesslog');
INSERT INTO `auth_permission` VALUES (23,'Can delete access log',6,'delete_accesslog');
INSERT INTO `auth_permission` VALUES (24,'Can view access log',6,'view_accesslog');
INSERT INTO `auth_permission` VALUES (25,'Can add access failure',7,'add_accessfailurelog');
INSERT INTO `auth_permission` VALUES (26,'Can change access failure',7,'change_accessfailurelog');
INSERT INTO `auth_permission` VALUES (27,'Can delete access failure',7,'delete_accessfailurelog');
INSERT INTO `auth_permission` VALUES (28,'Can view access failure',7,'view_accessfailurelog');
INSERT INTO `auth_permission` VALUES (29,'Can add access attempt expiration',8,'add_accessattemptexpiration');
INSERT INTO `auth_permission` VALUES (30,'Can change access attempt expiration',8,'change_accessattemptexpiration');
INSERT INTO `auth_permission` VALUES (31,'Can delete access attempt expiration',8,'delete_accessattemptexpiration');
INSERT INTO `auth_permission` VALUES (32,'Can view access attempt expiration',8,'view_accessattemptexpiration');
INSERT INTO `auth_permission` VALUES (33,'Can add group sequence',9,'add_groupsequence');
INSERT INTO `auth_permission` VALUES (34,'Can change group sequence',9,'change_groupsequence');
INSERT INTO `auth_permission` VALUES (35,'Can delete group sequence',9,'delete_groupsequence');
INSERT INTO `auth_permission` VALUES (36,'Can view group sequence',9,'view_groupsequence');
INSERT INTO `auth_permission` VALUES (37,'Can add event',10,'add_event');
INSERT INTO `auth_permission` VALUES (38,'Can change event',10,'change_event');
INSERT INTO `auth_permission` VALUES (39,'Can delete event',10,'delete_event');
INSERT INTO `auth_permission` VALUES (40,'Can view event',10,'view_event');
INSERT INTO `auth_permission` VALUES (41,'Can add person',11,'add_person');
INSERT INTO `auth_permission` VALUES (42,'Can change person',11,'change_person');
INSERT INTO `auth_permission` VALUES (43,'Can delete person',11,'delete_person');
INSERT INTO `auth_permission` VALUES (44,'Can view person',11,'view_person');
INSERT INTO `auth_permission` VALUES (45,'Can add non school day',12,'add_nonschoolday');
INSERT INTO `auth_permission` VALUES (46,'Can change non school day',12,'change_nonschoolday');
INSERT INTO `auth_permission` VALUES (47,'Can delete non school day',12,'delete_nonschoolday');
INSERT INTO `auth_permission` VALUES (48,'Can view non school day',12,'view_nonschoolday');
INSERT INTO `auth_permission` VALUES (49,'Can add period',13,'add_period');
INSERT INTO `auth_permission` VALUES (50,'Can change period',13,'change_period');
INSERT INTO `auth_permission` VALUES (51,'Can delete period',13,'delete_period');
INSERT INTO `auth_permission` VALUES (52,'Can view period',13,'view_period');
INSERT INTO `auth_permission` VALUES (53,'Can add school',14,'add_school');
INSERT INTO `auth_permission` VALUES (54,'Can change school',14,'change_school');
INSERT INTO `auth_permission` VALUES (55,'Can delete school',14,'delete_school');
INSERT INTO `auth_permission` VALUES (56,'Can view school',14,'view_school');
INSERT INTO `auth_permission` VALUES (57,'Can add teaching group',15,'add_teachinggroup');
INSERT INTO `auth_permission` VALUES (58,'Can change teaching group',15,'change_teachinggroup');
INSERT INTO `auth_permission` VALUES (59,'Can delete teaching group',15,'delete_teachinggroup');
INSERT INTO `auth_permission` VALUES (60,'Can view teaching group',15,'view_teachinggroup');
INSERT INTO `auth_permission` VALUES (61,'Can add adjustment',16,'add_adjustment');
INSERT INTO `auth_permission` VALUES (62,'Can change adjustment',16,'change_adjustment');
INSERT INTO `auth_permission` VALUES (63,'Can delete adjustment',16,'delete_adjustment');
INSERT INTO `auth_permission` VALUES (64,'Can view adjustment',16,'view_adjustment');
INSERT INTO `auth_permission` VALUES (65,'Can add enrolment',17,'add_enrolment');
INSERT INTO `auth_permission` VALUES (66,'Can change enrolment',17,'change_enrolment');
INSERT INTO `auth_permission` VALUES (67,'Can delete enrolment',17,'delete_enrolment');
INSERT INTO `auth_permission` VALUES (68,'Can view enrolment',17,'view_enrolment');
INSERT INTO `auth_permission` VALUES (69,'Can add period membership',18,'add_periodmembership');
INSERT INTO `auth_permission` VALUES (70,'Can change period membership',18,'change_periodmembership');
INSERT INTO `auth_permission` VALUES (71,'Can delete period membership',18,'delete_periodmembership');
INSERT INTO `auth_permission` VALUES (72,'Can view period membership',18,'view_periodmembership');
INSERT INTO `auth_permission` VALUES (73,'Can add term',19,'add_term');
INSERT INTO `auth_permission` VALUES (74,'Can change term',19,'change_term');
INSERT INTO `auth_permission` VALUES (75,'Can delete term',19,'delete_term');
INSERT INTO `auth_permission` VALUES (76,'Can view term',19,'view_term');
INSERT INTO `auth_permission` VALUES (77,'Can add working group',20,'add_workinggroup');
INSERT INTO `auth_permission` VALUES (78,'Can change working group',20,'change_workinggroup');
INSERT INTO `auth_permission` VALUES (79,'Can delete working group',20,'delete_workinggroup');
INSERT INTO `auth_permission` VALUES (80,'Can view working group',20,'view_workinggroup');
INSERT INTO `auth_permission` VALUES (81,'Can add staff role',21,'add_staffrole');
INSERT INTO `auth_permission` VALUES (82,'Can change staff role',21,'change_staffrole');
INSERT INTO `auth_permission` VALUES (83,'Can delete staff role',21,'delete_staffrole');
INSERT INTO `auth_permission` VALUES (84,'Can view staff role',21,'view_staffrole');
INSERT INTO `auth_permission` VALUES (85,'Can add absence',22,'add_absence');
INSERT INTO `auth_permission` VALUES (86,'Can change absence',22,'change_absence');
INSERT INTO `auth_permission` VALUES (87,'Can delete absence',22,'delete_absence');
INSERT INTO `auth_permission` VALUES (88,'Can view absence',22,'view_absence');
INSERT INTO `auth_permission` VALUES (89,'Can add roster change',23,'add_rosterchange');
INSERT INTO `auth_permission` VALUES (90,'Can change roster change',23,'change_rosterchange');
INSERT INTO `auth_permission` VALUES (91,'Can delete roster change',23,'delete_rosterchange');
INSERT INTO `auth_permission` VALUES (92,'Can view roster change',23,'view_rosterchange');
INSERT INTO `auth_permission` VALUES (93,'Can add sign in card',24,'add_signincard');
INSERT INTO `auth_permission` VALUES (94,'Can change sign in card',24,'change_signincard');
INSERT INTO `auth_permission` VALUES (95,'Can delete sign in card',24,'delete_signincard');
INSERT INTO `auth_permission` VALUES (96,'Can view sign in card',24,'view_signincard');
INSERT INTO `auth_permission` VALUES (97,'Can add feed address',25,'add_feedaddress');
INSERT INTO `auth_permission` VALUES (98,'Can change feed address',25,'change_feedaddress');
INSERT INTO `auth_permission` VALUES (99,'Can delete feed address',25,'delete_feedaddress');
INSERT INTO `auth_permission` VALUES (100,'Can view feed address',25,'view_feedaddress');
INSERT INTO `auth_permission` VALUES (101,'Can add roster drop',26,'add_rosterdrop');
INSERT INTO `auth_permission` VALUES (102,'Can change roster drop',26,'change_rosterdrop');
INSERT INTO `auth_permission` VALUES (103,'Can delete roster drop',26,'delete_rosterdrop');
INSERT INTO `auth_permission` VALUES (104,'Can view roster drop',26,'view_rosterdrop');
INSERT INTO `auth_permission` VALUES (105,'Can add template',27,'add_template');
INSERT INTO `auth_permission` VALUES (106,'Can change template',27,'change_template');
INSERT INTO `auth_permission` VALUES (107,'Can delete template',27,'delete_template');
INSERT INTO `auth_permission` VALUES (108,'Can view template',27,'view_template');
INSERT INTO `auth_permission` VALUES (109,'Can add section',28,'add_section');
INSERT INTO `auth_permission` VALUES (110,'Can change section',28,'change_section');
INSERT INTO `auth_permission` VALUES (111,'Can delete section',28,'delete_section');
INSERT INTO `auth_permission` VALUES (112,'Can view section',28,'view_section');
INSERT INTO `auth_permission` VALUES (113,'Can add pocket',29,'add_pocket');
INSERT INTO `auth_permission` VALUES (114,'Can change pocket',29,'change_pocket');
INSERT INTO `auth_permission` VALUES (115,'Can delete pocket',29,'delete_pocket');
INSERT INTO `auth_permission` VALUES (116,'Can view pocket',29,'view_pocket');
INSERT INTO `auth_permission` VALUES (117,'Can add gallery template',30,'add_gallerytemplate');
INSERT INTO `auth_permission` VALUES (118,'Can change gallery template',30,'change_gallerytemplate');
INSERT INTO `auth_permission` VALUES (119,'Can delete gallery template',30,'delete_gallerytemplate');
INSERT INTO `auth_permission` VALUES (120,'Can view gallery template',30,'view_gallerytemplate');
INSERT INTO `auth_permission` VALUES (121,'Can add gallery version',31,'add_galleryversion');
INSERT INTO `auth_permission` VALUES (122,'Can change gallery version',31,'change_galleryversion');
INSERT INTO `auth_permission` VALUES (123,'Can delete gallery version',31,'delete_galleryversion');
INSERT INTO `auth_permission` VALUES (124,'Can view gallery version',31,'view_galleryversion');
INSERT INTO `auth_permission` VALUES (125,'Can add unit',32,'add_unit');
INSERT INTO `auth_permission` VALUES (126,'Can change unit',32,'change_unit');
INSERT INTO `auth_permission` VALUES (127,'Can delete unit',32,'delete_unit');
INSERT INTO `auth_permission` VALUES (128,'Can view unit',32,'view_unit');
INSERT INTO `auth_permission` VALUES (129,'Can add artefact',33,'add_artefact');
INSERT INTO `auth_permission` VALUES (130,'Can change artefact',33,'change_artefact');
INSERT INTO `auth_permission` VALUES (131,'Can delete artefact',33,'delete_artefact');
INSERT INTO `auth_permission` VALUES (132,'Can view artefact',33,'view_artefact');
INSERT INTO `auth_permission` VALUES (133,'Can add stored file',34,'add_storedfile');
INSERT INTO `auth_permission` VALUES (134,'Can change stored file',34,'change_storedfile');
INSERT INTO `auth_permission` VALUES (135,'Can delete stored file',34,'delete_storedfile');
INSERT INTO `auth_permission` VALUES (136,'Can view stored file',34,'view_storedfile');
INSERT INTO `auth_permission` VALUES (137,'Can add portfolio',35,'add_portfolio');
INSERT INTO `auth_permission` VALUES (138,'Can change portfolio',35,'change_portfolio');
INSERT INTO `auth_permission` VALUES (139,'Can delete portfolio',35,'delete_portfolio');
INSERT INTO `auth_permission` VALUES (140,'Can view portfolio',35,'view_portfolio');
INSERT INTO `auth_permission` VALUES (141,'Can add evidence',36,'add_evidence');
INSERT INTO `auth_permission` VALUES (142,'Can change evidence',36,'change_evidence');
INSERT INTO `auth_permission` VALUES (143,'Can delete evidence',36,'delete_evidence');
INSERT INTO `auth_permission` VALUES (144,'Can view evidence',36,'view_evidence');
INSERT INTO `auth_permission` VALUES (145,'Can add standing hold',37,'add_standinghold');
INSERT INTO `auth_permission` VALUES (146,'Can change standing hold',37,'change_standinghold');
INSERT INTO `auth_permission` VALUES (147,'Can delete standing hold',37,'delete_standinghold');
INSERT INTO `auth_permission` VALUES (148,'Can view standing hold',37,'view_standinghold');
INSERT INTO `auth_permission` VALUES (149,'Can add text revision',38,'add_textrevision');
INSERT INTO `auth_permission` VALUES (150,'Can change text revision',38,'change_textrevision');
INSERT INTO `auth_permission` VALUES (151,'Can delete text revision',38,'delete_textrevision');
INSERT INTO `auth_permission` VALUES (152,'Can view text revision',38,'view_textrevision');
INSERT INTO `auth_permission` VALUES (153,'Can add pocket content',39,'add_pocketcontent');
INSERT INTO `auth_permission` VALUES (154,'Can change pocket content',39,'change_pocketcontent');
INSERT INTO `auth_permission` VALUES (155,'Can delete pocket content',39,'delete_pocketcontent');
INSERT INTO `auth_permission` VALUES (156,'Can view pocket content',39,'view_pocketcontent');
INSERT INTO `auth_permission` VALUES (157,'Can add log row',40,'add_logrow');
INSERT INTO `auth_permission` VALUES (158,'Can change log row',40,'change_logrow');
INSERT INTO `auth_permission` VALUES (159,'Can delete log row',40,'delete_logrow');
INSERT INTO `auth_permission` VALUES (160,'Can view log row',40,'view_logrow');
INSERT INTO `auth_permission` VALUES (161,'Can add variant deal',41,'add_variantdeal');
INSERT INTO `auth_permission` VALUES (162,'Can change variant deal',41,'change_variantdeal');
INSERT INTO `auth_permission` VALUES (163,'Can delete variant deal',41,'delete_variantdeal');
INSERT INTO `auth_permission` VALUES (164,'Can view variant deal',41,'view_variantdeal');
INSERT INTO `auth_permission` VALUES (165,'Can add pocket file',42,'add_pocketfile');
INSERT INTO `auth_permission` VALUES (166,'Can change pocket file',42,'change_pocketfile');
INSERT INTO `auth_permission` VALUES (167,'Can delete pocket file',42,'delete_pocketfile');
INSERT INTO `auth_permission` VALUES (168,'Can view pocket file',42,'view_pocketfile');
INSERT INTO `auth_permission` VALUES (169,'Can add loose page',43,'add_loosepage');
INSERT INTO `auth_permission` VALUES (170,'Can change loose page',43,'change_loosepage');
INSERT INTO `auth_permission` VALUES (171,'Can delete loose page',43,'delete_loosepage');
INSERT INTO `auth_permission` VALUES (172,'Can view loose page',43,'view_loosepage');
INSERT INTO `auth_permission` VALUES (173,'Can add comment',44,'add_comment');
INSERT INTO `auth_permission` VALUES (174,'Can change comment',44,'change_comment');
INSERT INTO `auth_permission` VALUES (175,'Can delete comment',44,'delete_comment');
INSERT INTO `auth_permission` VALUES (176,'Can view comment',44,'view_comment');
INSERT INTO `auth_permission` VALUES (177,'Can add look',45,'add_look');
INSERT INTO `auth_permission` VALUES (178,'Can change look',45,'change_look');
INSERT INTO `auth_permission` VALUES (179,'Can delete look',45,'delete_look');
INSERT INTO `auth_permission` VALUES (180,'Can view look',45,'view_look');
INSERT INTO `auth_permission` VALUES (181,'Can add preview',46,'add_preview');
INSERT INTO `auth_permission` VALUES (182,'Can change preview',46,'change_preview');
INSERT INTO `auth_permission` VALUES (183,'Can delete preview',46,'delete_preview');
INSERT INTO `auth_permission` VALUES (184,'Can view preview',46,'view_preview');
INSERT INTO `auth_permission` VALUES (185,'Can add shown artefact',47,'add_shownartefact');
INSERT INTO `auth_permission` VALUES (186,'Can change shown artefact',47,'change_shownartefact');
INSERT INTO `auth_permission` VALUES (187,'Can delete shown artefact',47,'delete_shownartefact');
INSERT INTO `auth_permission` VALUES (188,'Can view shown artefact',47,'view_shownartefact');
INSERT INTO `auth_permission` VALUES (189,'Can add show page',48,'add_showpage');
INSERT INTO `auth_permission` VALUES (190,'Can change show page',48,'change_showpage');
INSERT INTO `auth_permission` VALUES (191,'Can delete show page',48,'delete_showpage');
INSERT INTO `auth_permission` VALUES (192,'Can view show page',48,'view_showpage');
INSERT INTO `auth_permission` VALUES (193,'Can add upload',49,'add_upload');
INSERT INTO `auth_permission` VALUES (194,'Can change upload',49,'change_upload');
INSERT INTO `auth_permission` VALUES (195,'Can delete upload',49,'delete_upload');
INSERT INTO `auth_permission` VALUES (196,'Can view upload',49,'view_upload');
INSERT INTO `auth_permission` VALUES (197,'Can add written text',50,'add_writtentext');
INSERT INTO `auth_permission` VALUES (198,'Can change written text',50,'change_writtentext');
INSERT INTO `auth_permission` VALUES (199,'Can delete written text',50,'delete_writtentext');
INSERT INTO `auth_permission` VALUES (200,'Can view written text',50,'view_writtentext');
INSERT INTO `auth_permission` VALUES (201,'Can add hand in',51,'add_handin');
INSERT INTO `auth_permission` VALUES (202,'Can change hand in',51,'change_handin');
INSERT INTO `auth_permission` VALUES (203,'Can delete hand in',51,'delete_handin');
INSERT INTO `auth_permission` VALUES (204,'Can view hand in',51,'view_handin');
INSERT INTO `auth_permission` VALUES (205,'Can add hand in period',52,'add_handinperiod');
INSERT INTO `auth_permission` VALUES (206,'Can change hand in period',52,'change_handinperiod');
INSERT INTO `auth_permission` VALUES (207,'Can delete hand in period',52,'delete_handinperiod');
INSERT INTO `auth_permission` VALUES (208,'Can view hand in period',52,'view_handinperiod');
INSERT INTO `auth_permission` VALUES (209,'Can add kept facts',53,'add_keptfacts');
INSERT INTO `auth_permission` VALUES (210,'Can change kept facts',53,'change_keptfacts');
INSERT INTO `auth_permission` VALUES (211,'Can delete kept facts',53,'delete_keptfacts');
INSERT INTO `auth_permission` VALUES (212,'Can view kept facts',53,'view_keptfacts');
INSERT INTO `auth_permission` VALUES (213,'Can add own due',54,'add_owndue');
INSERT INTO `auth_permission` VALUES (214,'Can change own due',54,'change_owndue');
INSERT INTO `auth_permission` VALUES (215,'Can delete own due',54,'delete_owndue');
INSERT INTO `auth_permission` VALUES (216,'Can view own due',54,'view_owndue');
INSERT INTO `auth_permission` VALUES (217,'Can add submission',55,'add_submission');
INSERT INTO `auth_permission` VALUES (218,'Can change submission',55,'change_submission');
INSERT INTO `auth_permission` VALUES (219,'Can delete submission',55,'delete_submission');
INSERT INTO `auth_permission` VALUES (220,'Can view submission',55,'view_submission');
INSERT INTO `auth_permission` VALUES (221,'Can add outcome',56,'add_outcome');
INSERT INTO `auth_permission` VALUES (222,'Can change outcome',56,'change_outcome');
INSERT INTO `auth_permission` VALUES (223,'Can delete outcome',56,'delete_outcome');
INSERT INTO `auth_permission` VALUES (224,'Can view outcome',56,'view_outcome');
INSERT INTO `auth_permission` VALUES (225,'Can add draft mark',57,'add_draftmark');
INSERT INTO `auth_permission` VALUES (226,'Can change draft mark',57,'change_draftmark');
INSERT INTO `auth_permission` VALUES (227,'Can delete draft mark',57,'delete_draftmark');
INSERT INTO `auth_permission` VALUES (228,'Can view draft mark',57,'view_draftmark');
INSERT INTO `auth_permission` VALUES (229,'Can add released mark',58,'add_releasedmark');
INSERT INTO `auth_permission` VALUES (230,'Can change released mark',58,'change_releasedmark');
INSERT INTO `auth_permission` VALUES (231,'Can delete released mark',58,'delete_releasedmark');
INSERT INTO `auth_permission` VALUES (232,'Can view released mark',58,'view_releasedmark');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `axes_accessattempt` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `user_agent` varchar(255) NOT NULL,
  `ip_address` char(39) DEFAULT NULL,
  `username` varchar(255) DEFAULT NULL,
  `http_accept` varchar(1025) NOT NULL,
  `path_info` varchar(255) NOT NULL,
  `attempt_time` datetime(6) NOT NULL,
  `get_data` longtext NOT NULL,
  `post_data` longtext NOT NULL,
  `failures_since_start` int(10) unsigned NOT NULL CHECK (`failures_since_start` >= 0),
  PRIMARY KEY (`id`),
  UNIQUE KEY `axes_accessattempt_username_ip_address_user_agent_8ea22282_uniq` (`username`,`ip_address`,`user_agent`),
  KEY `axes_accessattempt_ip_address_10922d9c` (`ip_address`),
  KEY `axes_accessattempt_user_agent_ad89678b` (`user_agent`),
  KEY `axes_accessattempt_username_3f2d4ca0` (`username`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `axes_accessattemptexpiration` (
  `access_attempt_id` int(11) NOT NULL,
  `expires_at` datetime(6) NOT NULL,
  PRIMARY KEY (`access_attempt_id`),
  CONSTRAINT `axes_accessattemptex_access_attempt_id_6b73a47a_fk_axes_acce` FOREIGN KEY (`access_attempt_id`) REFERENCES `axes_accessattempt` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `axes_accessfailurelog` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `user_agent` varchar(255) NOT NULL,
  `ip_address` char(39) DEFAULT NULL,
  `username` varchar(255) DEFAULT NULL,
  `http_accept` varchar(1025) NOT NULL,
  `path_info` varchar(255) NOT NULL,
  `attempt_time` datetime(6) NOT NULL,
  `locked_out` tinyint(1) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `axes_accessfailurelog_user_agent_ea145dda` (`user_agent`),
  KEY `axes_accessfailurelog_ip_address_2e9f5a7f` (`ip_address`),
  KEY `axes_accessfailurelog_username_a8b7e8a4` (`username`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `axes_accesslog` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `user_agent` varchar(255) NOT NULL,
  `ip_address` char(39) DEFAULT NULL,
  `username` varchar(255) DEFAULT NULL,
  `http_accept` varchar(1025) NOT NULL,
  `path_info` varchar(255) NOT NULL,
  `attempt_time` datetime(6) NOT NULL,
  `logout_time` datetime(6) DEFAULT NULL,
  `session_hash` varchar(64) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `axes_accesslog_ip_address_86b417e5` (`ip_address`),
  KEY `axes_accesslog_user_agent_0e659004` (`user_agent`),
  KEY `axes_accesslog_username_df93064b` (`username`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `django_content_type` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `app_label` varchar(100) NOT NULL,
  `model` varchar(100) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `django_content_type_app_label_model_76bd3d3b_uniq` (`app_label`,`model`)
) ENGINE=InnoDB AUTO_INCREMENT=59 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `django_content_type` VALUES (1,'contenttypes','contenttype');
INSERT INTO `django_content_type` VALUES (2,'auth','permission');
INSERT INTO `django_content_type` VALUES (3,'auth','group');
INSERT INTO `django_content_type` VALUES (4,'sessions','session');
INSERT INTO `django_content_type` VALUES (5,'axes','accessattempt');
INSERT INTO `django_content_type` VALUES (6,'axes','accesslog');
INSERT INTO `django_content_type` VALUES (7,'axes','accessfailurelog');
INSERT INTO `django_content_type` VALUES (8,'axes','accessattemptexpiration');
INSERT INTO `django_content_type` VALUES (9,'events','groupsequence');
INSERT INTO `django_content_type` VALUES (10,'events','event');
INSERT INTO `django_content_type` VALUES (11,'people','person');
INSERT INTO `django_content_type` VALUES (12,'people','nonschoolday');
INSERT INTO `django_content_type` VALUES (13,'people','period');
INSERT INTO `django_content_type` VALUES (14,'people','school');
INSERT INTO `django_content_type` VALUES (15,'people','teachinggroup');
INSERT INTO `django_content_type` VALUES (16,'people','adjustment');
INSERT INTO `django_content_type` VALUES (17,'people','enrolment');
INSERT INTO `django_content_type` VALUES (18,'people','periodmembership');
INSERT INTO `django_content_type` VALUES (19,'people','term');
INSERT INTO `django_content_type` VALUES (20,'people','workinggroup');
INSERT INTO `django_content_type` VALUES (21,'people','staffrole');
INSERT INTO `django_content_type` VALUES (22,'people','absence');
INSERT INTO `django_content_type` VALUES (23,'people','rosterchange');
INSERT INTO `django_content_type` VALUES (24,'people','signincard');
INSERT INTO `django_content_type` VALUES (25,'people','feedaddress');
INSERT INTO `django_content_type` VALUES (26,'people','rosterdrop');
INSERT INTO `django_content_type` VALUES (27,'outlines','template');
INSERT INTO `django_content_type` VALUES (28,'outlines','section');
INSERT INTO `django_content_type` VALUES (29,'outlines','pocket');
INSERT INTO `django_content_type` VALUES (30,'outlines','gallerytemplate');
INSERT INTO `django_content_type` VALUES (31,'outlines','galleryversion');
INSERT INTO `django_content_type` VALUES (32,'outlines','unit');
INSERT INTO `django_content_type` VALUES (33,'portfolios','artefact');
INSERT INTO `django_content_type` VALUES (34,'portfolios','storedfile');
INSERT INTO `django_content_type` VALUES (35,'portfolios','portfolio');
INSERT INTO `django_content_type` VALUES (36,'portfolios','evidence');
INSERT INTO `django_content_type` VALUES (37,'portfolios','standinghold');
INSERT INTO `django_content_type` VALUES (38,'portfolios','textrevision');
INSERT INTO `django_content_type` VALUES (39,'portfolios','pocketcontent');
INSERT INTO `django_content_type` VALUES (40,'portfolios','logrow');
INSERT INTO `django_content_type` VALUES (41,'portfolios','variantdeal');
INSERT INTO `django_content_type` VALUES (42,'portfolios','pocketfile');
INSERT INTO `django_content_type` VALUES (43,'portfolios','loosepage');
INSERT INTO `django_content_type` VALUES (44,'portfolios','comment');
INSERT INTO `django_content_type` VALUES (45,'portfolios','look');
INSERT INTO `django_content_type` VALUES (46,'portfolios','preview');
INSERT INTO `django_content_type` VALUES (47,'portfolios','shownartefact');
INSERT INTO `django_content_type` VALUES (48,'portfolios','showpage');
INSERT INTO `django_content_type` VALUES (49,'portfolios','upload');
INSERT INTO `django_content_type` VALUES (50,'portfolios','writtentext');
INSERT INTO `django_content_type` VALUES (51,'handins','handin');
INSERT INTO `django_content_type` VALUES (52,'handins','handinperiod');
INSERT INTO `django_content_type` VALUES (53,'handins','keptfacts');
INSERT INTO `django_content_type` VALUES (54,'handins','owndue');
INSERT INTO `django_content_type` VALUES (55,'handins','submission');
INSERT INTO `django_content_type` VALUES (56,'handins','outcome');
INSERT INTO `django_content_type` VALUES (57,'marking','draftmark');
INSERT INTO `django_content_type` VALUES (58,'marking','releasedmark');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `django_migrations` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `app` varchar(255) NOT NULL,
  `name` varchar(255) NOT NULL,
  `applied` datetime(6) NOT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=53 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `django_migrations` VALUES (1,'contenttypes','0001_initial','2026-11-26 00:00:53.775745');
INSERT INTO `django_migrations` VALUES (2,'contenttypes','0002_remove_content_type_name','2026-11-26 00:00:53.785850');
INSERT INTO `django_migrations` VALUES (3,'auth','0001_initial','2026-11-26 00:00:53.815922');
INSERT INTO `django_migrations` VALUES (4,'auth','0002_alter_permission_name_max_length','2026-11-26 00:00:53.824299');
INSERT INTO `django_migrations` VALUES (5,'auth','0003_alter_user_email_max_length','2026-11-26 00:00:53.831573');
INSERT INTO `django_migrations` VALUES (6,'auth','0004_alter_user_username_opts','2026-11-26 00:00:53.840995');
INSERT INTO `django_migrations` VALUES (7,'auth','0005_alter_user_last_login_null','2026-11-26 00:00:53.847076');
INSERT INTO `django_migrations` VALUES (8,'auth','0006_require_contenttypes_0002','2026-11-26 00:00:53.848046');
INSERT INTO `django_migrations` VALUES (9,'auth','0007_alter_validators_add_error_messages','2026-11-26 00:00:53.853741');
INSERT INTO `django_migrations` VALUES (10,'auth','0008_alter_user_username_max_length','2026-11-26 00:00:53.861496');
INSERT INTO `django_migrations` VALUES (11,'auth','0009_alter_user_last_name_max_length','2026-11-26 00:00:53.868442');
INSERT INTO `django_migrations` VALUES (12,'auth','0010_alter_group_name_max_length','2026-11-26 00:00:53.875849');
INSERT INTO `django_migrations` VALUES (13,'auth','0011_update_proxy_permissions','2026-11-26 00:00:53.884636');
INSERT INTO `django_migrations` VALUES (14,'auth','0012_alter_user_first_name_max_length','2026-11-26 00:00:53.892545');
INSERT INTO `django_migrations` VALUES (15,'axes','0001_initial','2026-11-26 00:00:53.900883');
INSERT INTO `django_migrations` VALUES (16,'axes','0002_auto_20151217_2044','2026-11-26 00:00:53.926550');
INSERT INTO `django_migrations` VALUES (17,'axes','0003_auto_20160322_0929','2026-11-26 00:00:53.940315');
INSERT INTO `django_migrations` VALUES (18,'axes','0004_auto_20181024_1538','2026-11-26 00:00:53.953405');
INSERT INTO `django_migrations` VALUES (19,'axes','0005_remove_accessattempt_trusted','2026-11-26 00:00:53.957478');
INSERT INTO `django_migrations` VALUES (20,'axes','0006_remove_accesslog_trusted','2026-11-26 00:00:53.961131');
INSERT INTO `django_migrations` VALUES (21,'axes','0007_alter_accessattempt_unique_together','2026-11-26 00:00:53.976959');
INSERT INTO `django_migrations` VALUES (22,'axes','0008_accessfailurelog','2026-11-26 00:00:53.984566');
INSERT INTO `django_migrations` VALUES (23,'axes','0009_add_session_hash','2026-11-26 00:00:53.989059');
INSERT INTO `django_migrations` VALUES (24,'axes','0010_accessattemptexpiration','2026-11-26 00:00:53.994756');
INSERT INTO `django_migrations` VALUES (25,'events','0001_events_and_sequences','2026-11-26 00:00:54.001260');
INSERT INTO `django_migrations` VALUES (26,'people','0001_people_groups_calendar','2026-11-26 00:00:54.121798');
INSERT INTO `django_migrations` VALUES (27,'outlines','0001_templates_sections_pockets','2026-11-26 00:00:54.177604');
INSERT INTO `django_migrations` VALUES (28,'handins','0001_handins_submissions_outcomes','2026-11-26 00:00:54.554671');
INSERT INTO `django_migrations` VALUES (29,'marking','0001_draft_and_released_marks','2026-11-26 00:00:54.613489');
INSERT INTO `django_migrations` VALUES (30,'outlines','0002_editing','2026-11-26 00:00:54.642286');
INSERT INTO `django_migrations` VALUES (31,'outlines','0003_gallery','2026-11-26 00:00:54.903099');
INSERT INTO `django_migrations` VALUES (32,'outlines','0004_logs','2026-11-26 00:00:54.961364');
INSERT INTO `django_migrations` VALUES (33,'outlines','0005_ship_logs','2026-11-26 00:00:54.994381');
INSERT INTO `django_migrations` VALUES (34,'outlines','0006_units','2026-11-26 00:00:55.152049');
INSERT INTO `django_migrations` VALUES (35,'outlines','0007_variants','2026-11-26 00:00:55.165922');
INSERT INTO `django_migrations` VALUES (36,'outlines','0008_rich_directions','2026-11-26 00:00:55.208621');
INSERT INTO `django_migrations` VALUES (37,'outlines','0009_starter_files','2026-11-26 00:00:55.231613');
INSERT INTO `django_migrations` VALUES (38,'outlines','0010_spoken_pockets','2026-11-26 00:00:55.245760');
INSERT INTO `django_migrations` VALUES (39,'people','0002_calendar_key','2026-11-26 00:00:55.251191');
INSERT INTO `django_migrations` VALUES (40,'people','0003_rosters','2026-11-26 00:00:55.512626');
INSERT INTO `django_migrations` VALUES (41,'people','0004_adjusted_wants','2026-11-26 00:00:55.609486');
INSERT INTO `django_migrations` VALUES (42,'people','0005_sign_in_cards','2026-11-26 00:00:55.837111');
INSERT INTO `django_migrations` VALUES (43,'people','0006_feed_addresses','2026-11-26 00:00:55.871652');
INSERT INTO `django_migrations` VALUES (44,'people','0007_roster_drops','2026-11-26 00:00:55.939162');
INSERT INTO `django_migrations` VALUES (45,'people','0008_reading_news','2026-11-26 00:00:55.972056');
INSERT INTO `django_migrations` VALUES (46,'portfolios','0001_portfolios_evidence_files_holds','2026-11-26 00:00:56.242044');
INSERT INTO `django_migrations` VALUES (47,'portfolios','0002_log_rows','2026-11-26 00:00:56.298402');
INSERT INTO `django_migrations` VALUES (48,'portfolios','0003_deals','2026-11-26 00:00:56.355446');
INSERT INTO `django_migrations` VALUES (49,'portfolios','0004_pocket_files','2026-11-26 00:00:56.411547');
INSERT INTO `django_migrations` VALUES (50,'portfolios','0005_covers_pages','2026-11-26 00:00:56.576327');
INSERT INTO `django_migrations` VALUES (51,'portfolios','0006_uploads_previews_texts_looks','2026-11-26 00:00:58.997187');
INSERT INTO `django_migrations` VALUES (52,'sessions','0001_initial','2026-11-26 00:00:59.003002');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `django_session` (
  `session_key` varchar(40) NOT NULL,
  `session_data` longtext NOT NULL,
  `expire_date` datetime(6) NOT NULL,
  PRIMARY KEY (`session_key`),
  KEY `django_session_expire_date_a5c62663` (`expire_date`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `events_event` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `group_id` bigint(20) NOT NULL,
  `number` bigint(20) NOT NULL,
  `verb` varchar(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `actor_id` bigint(20) DEFAULT NULL,
  `at` datetime(6) NOT NULL,
  `enrolment_id` bigint(20) DEFAULT NULL,
  `handin_id` bigint(20) DEFAULT NULL,
  `submission_id` bigint(20) DEFAULT NULL,
  `data` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`data`)),
  PRIMARY KEY (`id`),
  UNIQUE KEY `event_once_in_group` (`group_id`,`number`),
  KEY `event_of_student` (`enrolment_id`,`handin_id`)
) ENGINE=InnoDB AUTO_INCREMENT=24 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `events_event` VALUES (1,1,1,'handin_set',1,'2026-11-04 10:00:00.000000',NULL,1,NULL,'{\"pockets\": [1]}');
INSERT INTO `events_event` VALUES (2,1,2,'handin_set',1,'2026-11-04 10:00:00.000000',NULL,2,NULL,'{\"pockets\": [3]}');
INSERT INTO `events_event` VALUES (3,1,3,'artefact_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 3, \"evidence\": 1, \"artefact\": 1, \"came\": \"a49462a4defc2e137efb9bd8bdfb91c521fdac067474ff5fe0a67c1860fcc616\", \"kept\": \"886369a1e29f181062743be5d7fccac172445f440ddf11499a159f40c4a21489\"}');
INSERT INTO `events_event` VALUES (4,1,4,'text_written',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 3, \"evidence\": 1, \"version\": 1, \"text\": \"a5b87d72b255a0243bcc07f1186482f961cdd1b54c972853fa43d5a8b5b340cf\"}');
INSERT INTO `events_event` VALUES (5,1,5,'artefact_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 1, \"evidence\": 2, \"artefact\": 2, \"came\": \"a49462a4defc2e137efb9bd8bdfb91c521fdac067474ff5fe0a67c1860fcc616\", \"kept\": \"886369a1e29f181062743be5d7fccac172445f440ddf11499a159f40c4a21489\"}');
INSERT INTO `events_event` VALUES (6,1,6,'text_written',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 1, \"evidence\": 2, \"version\": 1, \"text\": \"a5b87d72b255a0243bcc07f1186482f961cdd1b54c972853fa43d5a8b5b340cf\"}');
INSERT INTO `events_event` VALUES (7,1,7,'handed_in',2,'2026-11-04 10:00:00.000000',1,1,1,'{\"pockets\": [1], \"sha256\": \"61e4e66752e0205697914cca8a7b665bdc330a5cd3dd5709fa353579994f76b1\"}');
INSERT INTO `events_event` VALUES (8,1,8,'left',1,'2026-11-04 10:00:00.000000',3,NULL,NULL,'{}');
INSERT INTO `events_event` VALUES (9,1,9,'row_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 4, \"row\": 1, \"version\": 1, \"values\": \"b06fad9e4587766eaa2cd8e6b2d020f6de399ddde2264ab2de95f2cfc0ee4c04\"}');
INSERT INTO `events_event` VALUES (10,1,10,'pocket_file_added',1,'2026-11-04 10:00:00.000000',NULL,NULL,NULL,'{\"pocket\": 3, \"file\": 1, \"kept\": \"886369a1e29f181062743be5d7fccac172445f440ddf11499a159f40c4a21489\"}');
INSERT INTO `events_event` VALUES (11,1,11,'page_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"page\": 1}');
INSERT INTO `events_event` VALUES (12,1,12,'artefact_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 3, \"evidence\": 3, \"artefact\": 4}');
INSERT INTO `events_event` VALUES (13,1,13,'commented',1,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"comment\": 1, \"text\": \"9a64ff7231d96ed6ac2a9624f40ffaab5c0d33e5b9783706f217f9f69e8fd16f\"}');
INSERT INTO `events_event` VALUES (14,1,14,'show_page_arranged',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"version\": 1, \"shown\": [1]}');
INSERT INTO `events_event` VALUES (15,1,15,'shows_changed',1,'2026-11-04 10:00:00.000000',NULL,NULL,NULL,'{}');
INSERT INTO `events_event` VALUES (16,1,16,'show_page_opened',1,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{}');
INSERT INTO `events_event` VALUES (17,1,17,'pocket_file_added',1,'2026-11-04 10:00:00.000000',NULL,NULL,NULL,'{\"pocket\": 5, \"file\": 2, \"kept\": \"6ab297926189b1e0171e5a1cd0639b3f0d9cf6879ca540e82e9713fe0fc8bc8d\"}');
INSERT INTO `events_event` VALUES (18,1,18,'artefact_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 5, \"evidence\": 4, \"artefact\": 5, \"starter\": \"2\"}');
INSERT INTO `events_event` VALUES (19,1,19,'artefact_added',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 5, \"evidence\": 5, \"artefact\": 6, \"came\": \"6eb228fb5b59ab49a45a48bdd9e5f0ed65b43afb52ec72cc825a567986630827\", \"kept\": \"6eb228fb5b59ab49a45a48bdd9e5f0ed65b43afb52ec72cc825a567986630827\"}');
INSERT INTO `events_event` VALUES (20,1,20,'artefact_replaced',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 5, \"evidence\": 5, \"artefact\": 7, \"before\": 6, \"came\": \"76cf386aec2e0cc64517e04ecef5cc0f0a152f3d3307485a6aa3eeec94d4a8dc\", \"kept\": \"76cf386aec2e0cc64517e04ecef5cc0f0a152f3d3307485a6aa3eeec94d4a8dc\"}');
INSERT INTO `events_event` VALUES (21,1,21,'reflection_spoken',2,'2026-11-04 10:00:00.000000',1,NULL,NULL,'{\"pocket\": 3, \"evidence\": 1, \"artefact\": 8, \"kept\": \"4e9cc5bbce2136140462d11c5fec6e6c1ed10602c2bca874dbb58e7b9be21092\"}');
INSERT INTO `events_event` VALUES (22,1,22,'accepted',1,'2026-11-04 10:00:00.000000',1,1,1,'{\"pockets\": [1]}');
INSERT INTO `events_event` VALUES (23,1,23,'mark_released',1,'2026-11-04 10:00:00.000000',1,1,1,'{\"outcome\": 1, \"feedback\": \"e9be4892d8837f1f714c327064d961f37b9f50dd31c41e331d583d8870f5caed\"}');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `events_groupsequence` (
  `group_id` bigint(20) NOT NULL,
  `last` bigint(20) NOT NULL,
  PRIMARY KEY (`group_id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `events_groupsequence` VALUES (1,23);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_handin` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(200) NOT NULL,
  `opens` date NOT NULL,
  `due_day` date DEFAULT NULL,
  `due_time` time(6) DEFAULT NULL,
  `for_everyone` tinyint(1) NOT NULL,
  `points` decimal(6,1) DEFAULT NULL,
  `step` decimal(3,1) NOT NULL,
  `group_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `handins_handin_group_id_7cd9fce3_fk_people_teachinggroup_id` (`group_id`),
  CONSTRAINT `handins_handin_group_id_7cd9fce3_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`),
  CONSTRAINT `due_time_needs_day` CHECK (`due_time` is null or `due_day` is not null)
) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `handins_handin` VALUES (1,'Recipe card','2026-10-25','2026-11-06',NULL,1,30.0,1.0,1);
INSERT INTO `handins_handin` VALUES (2,'Plan','2026-10-25','2026-11-06',NULL,1,30.0,1.0,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_handin_pockets` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `handin_id` bigint(20) NOT NULL,
  `pocket_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `handins_handin_pockets_handin_id_pocket_id_1c96dc70_uniq` (`handin_id`,`pocket_id`),
  KEY `handins_handin_pockets_pocket_id_e13ce272_fk_outlines_pocket_id` (`pocket_id`),
  CONSTRAINT `handins_handin_pockets_handin_id_ae347c3d_fk_handins_handin_id` FOREIGN KEY (`handin_id`) REFERENCES `handins_handin` (`id`),
  CONSTRAINT `handins_handin_pockets_pocket_id_e13ce272_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `handins_handin_pockets` VALUES (1,1,1);
INSERT INTO `handins_handin_pockets` VALUES (2,2,3);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_handinperiod` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `asked` tinyint(1) NOT NULL,
  `due_day` date DEFAULT NULL,
  `due_time` time(6) DEFAULT NULL,
  `handin_id` bigint(20) NOT NULL,
  `period_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `handin_period_once` (`handin_id`,`period_id`),
  KEY `handins_handinperiod_period_id_6ed7c9e0_fk_people_period_id` (`period_id`),
  CONSTRAINT `handins_handinperiod_handin_id_5d095e36_fk_handins_handin_id` FOREIGN KEY (`handin_id`) REFERENCES `handins_handin` (`id`),
  CONSTRAINT `handins_handinperiod_period_id_6ed7c9e0_fk_people_period_id` FOREIGN KEY (`period_id`) REFERENCES `people_period` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_keptfacts` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `first_at` datetime(6) DEFAULT NULL,
  `newest` bigint(20) DEFAULT NULL,
  `newest_at` datetime(6) DEFAULT NULL,
  `submissions` int(10) unsigned NOT NULL CHECK (`submissions` >= 0),
  `outcome` varchar(10) DEFAULT NULL,
  `due_again` datetime(6) DEFAULT NULL,
  `excused` tinyint(1) NOT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  `handin_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `facts_once` (`handin_id`,`enrolment_id`),
  KEY `handins_keptfacts_enrolment_id_30507a18_fk_people_enrolment_id` (`enrolment_id`),
  CONSTRAINT `handins_keptfacts_enrolment_id_30507a18_fk_people_enrolment_id` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`),
  CONSTRAINT `handins_keptfacts_handin_id_2b88808e_fk_handins_handin_id` FOREIGN KEY (`handin_id`) REFERENCES `handins_handin` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `handins_keptfacts` VALUES (1,'2026-11-04 10:00:00.000000',1,'2026-11-04 10:00:00.000000',1,'accepted',NULL,0,1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_outcome` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `kind` varchar(10) NOT NULL,
  `at` datetime(6) NOT NULL,
  `pockets` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`pockets`)),
  `due_again` datetime(6) DEFAULT NULL,
  `voided_at` datetime(6) DEFAULT NULL,
  `standing_of` bigint(20) GENERATED ALWAYS AS (case when `voided_at` is null then `submission_id` else NULL end) STORED,
  `person_id` bigint(20) NOT NULL,
  `submission_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `one_standing_outcome` (`standing_of`),
  KEY `handins_outcome_person_id_6941514a_fk_people_person_id` (`person_id`),
  KEY `handins_outcome_submission_id_b0366d3f_fk_handins_submission_id` (`submission_id`),
  CONSTRAINT `handins_outcome_person_id_6941514a_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `handins_outcome_submission_id_b0366d3f_fk_handins_submission_id` FOREIGN KEY (`submission_id`) REFERENCES `handins_submission` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `handins_outcome` VALUES (1,'accepted','2026-11-04 10:00:00.000000','[]',NULL,NULL,1,1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_owndue` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `day` date NOT NULL,
  `at` time(6) DEFAULT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  `handin_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `own_due_once` (`handin_id`,`enrolment_id`),
  KEY `handins_owndue_enrolment_id_f46618ec_fk_people_enrolment_id` (`enrolment_id`),
  CONSTRAINT `handins_owndue_enrolment_id_f46618ec_fk_people_enrolment_id` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`),
  CONSTRAINT `handins_owndue_handin_id_aa201a54_fk_handins_handin_id` FOREIGN KEY (`handin_id`) REFERENCES `handins_handin` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `handins_submission` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `number` int(10) unsigned NOT NULL CHECK (`number` >= 0),
  `at` datetime(6) NOT NULL,
  `receipt` varchar(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `snapshot` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`snapshot`)),
  `sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `voided_at` datetime(6) DEFAULT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  `handin_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `receipt` (`receipt`),
  UNIQUE KEY `submission_number` (`handin_id`,`enrolment_id`,`number`),
  KEY `handins_submission_enrolment_id_ad93e485_fk_people_enrolment_id` (`enrolment_id`),
  CONSTRAINT `handins_submission_enrolment_id_ad93e485_fk_people_enrolment_id` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`),
  CONSTRAINT `handins_submission_handin_id_b9eeac1e_fk_handins_handin_id` FOREIGN KEY (`handin_id`) REFERENCES `handins_handin` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `handins_submission` VALUES (1,1,'2026-11-04 10:00:00.000000','S7-JUICE-34','{\"handin\": {\"id\": 1, \"title\": \"Recipe card\", \"points\": \"30.0\"}, \"pockets\": [{\"id\": 1, \"title\": \"Recipe card\", \"kind\": \"evidence\", \"prompt\": \"\", \"wanted\": {\"kind\": \"evidence\", \"artefacts\": 2, \"reflection_on_each\": true, \"length\": [\"sentences\", 2, 3]}, \"evidence\": [{\"id\": 2, \"text\": \"One thing. Another thing.\", \"version\": 1, \"words\": 4, \"sentences\": 2, \"unchanged\": false, \"artefact\": {\"id\": 2, \"kind\": \"picture\", \"title\": \"card.jpg\", \"link\": \"\", \"sha256\": \"886369a1e29f181062743be5d7fccac172445f440ddf11499a159f40c4a21489\", \"came_sha256\": \"a49462a4defc2e137efb9bd8bdfb91c521fdac067474ff5fe0a67c1860fcc616\", \"media_type\": \"image/jpeg\", \"size\": 678, \"width\": 60, \"height\": 40}}]}], \"links\": 0, \"empty\": false}','61e4e66752e0205697914cca8a7b665bdc330a5cd3dd5709fa353579994f76b1',NULL,1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `marking_draftmark` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `feedback` longtext NOT NULL,
  `score` decimal(6,1) DEFAULT NULL,
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `changed_at` datetime(6) NOT NULL,
  `submission_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `submission_id` (`submission_id`),
  CONSTRAINT `marking_draftmark_submission_id_3ec80e84_fk_handins_s` FOREIGN KEY (`submission_id`) REFERENCES `handins_submission` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `marking_draftmark` VALUES (1,'Good careful work.',20.0,1,'2026-11-04 10:00:00.000000',1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `marking_releasedmark` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `feedback` longtext NOT NULL,
  `score` decimal(6,1) DEFAULT NULL,
  `outcome_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `outcome_id` (`outcome_id`),
  CONSTRAINT `marking_releasedmark_outcome_id_345368f6_fk_handins_outcome_id` FOREIGN KEY (`outcome_id`) REFERENCES `handins_outcome` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `marking_releasedmark` VALUES (1,'Good careful work.',20.0,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `outlines_gallerytemplate` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(200) NOT NULL,
  `description` longtext NOT NULL,
  `withdrawn_at` datetime(6) DEFAULT NULL,
  `author_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  KEY `outlines_gallerytemplate_author_id_cf35624a_fk_people_person_id` (`author_id`),
  CONSTRAINT `outlines_gallerytemplate_author_id_cf35624a_fk_people_person_id` FOREIGN KEY (`author_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=8 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `outlines_gallerytemplate` VALUES (1,'Portfolio for a subject','A term in one subject: who I am, three questions, one piece of work I am proud of, and what I take with me.',NULL,NULL);
INSERT INTO `outlines_gallerytemplate` VALUES (2,'Project in groups','From the plan to the show: each student keeps their own part, with what they learned from working together.',NULL,NULL);
INSERT INTO `outlines_gallerytemplate` VALUES (3,'Leavers\' plan','For a year group that is followed to graduation: where I am going, what I am good at, proof of it, and the next step.',NULL,NULL);
INSERT INTO `outlines_gallerytemplate` VALUES (4,'Reading record','What I read, page by page: two entries a week, a hundred pages as the target, and what I would pass on.',NULL,NULL);
INSERT INTO `outlines_gallerytemplate` VALUES (5,'Laboratory record','A question, the readings one by one with their conditions and a photo, and what the numbers say.',NULL,NULL);
INSERT INTO `outlines_gallerytemplate` VALUES (6,'Credit plan','Every course up to leaving with its credits: planned, under way, passed. The target is what leaving needs.',NULL,NULL);
INSERT INTO `outlines_gallerytemplate` VALUES (7,'Score record','Every test of the year with its points and what to practise next.',NULL,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `outlines_galleryversion` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `number` int(10) unsigned NOT NULL CHECK (`number` >= 0),
  `document` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`document`)),
  `at` datetime(6) NOT NULL,
  `template_id` bigint(20) NOT NULL,
  `files` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`files`)),
  PRIMARY KEY (`id`),
  UNIQUE KEY `gallery_version_once` (`template_id`,`number`),
  CONSTRAINT `outlines_galleryvers_template_id_fffb601c_fk_outlines_` FOREIGN KEY (`template_id`) REFERENCES `outlines_gallerytemplate` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=8 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `outlines_galleryversion` VALUES (1,1,'[{\"key\": \"subject-start\", \"title\": \"Start\", \"pockets\": [{\"key\": \"subject-about\", \"title\": \"About me\", \"kind\": \"page\", \"directions\": \"Who you are, and what you already know about this subject.\", \"prompt\": \"What should we know about you?\", \"measure\": \"sentences\", \"least\": 2, \"most\": 8}]}, {\"key\": \"subject-questions\", \"title\": \"Questions\", \"pockets\": [{\"key\": \"subject-q1\", \"title\": \"First question\", \"kind\": \"evidence\", \"directions\": \"Show what you found out, with two pieces of evidence.\", \"prompt\": \"What does this show about the question?\", \"artefacts\": 2, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 2, \"most\": 5}, {\"key\": \"subject-q2\", \"title\": \"Second question\", \"kind\": \"evidence\", \"directions\": \"Show what you found out, with two pieces of evidence.\", \"prompt\": \"What does this show about the question?\", \"artefacts\": 2, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 2, \"most\": 5}, {\"key\": \"subject-q3\", \"title\": \"Third question\", \"kind\": \"evidence\", \"directions\": \"Show what you found out, with two pieces of evidence.\", \"prompt\": \"What does this show about the question?\", \"artefacts\": 2, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 2, \"most\": 5}]}, {\"key\": \"subject-end\", \"title\": \"My best work\", \"pockets\": [{\"key\": \"subject-proud\", \"title\": \"What I am proud of\", \"kind\": \"evidence\", \"directions\": \"One piece of work from this term, chosen by you.\", \"prompt\": \"Why this one?\", \"artefacts\": 1, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 3, \"most\": 6}, {\"key\": \"subject-finds\", \"title\": \"Useful finds\", \"kind\": \"links\", \"directions\": \"Pages that helped you, with a title of your own.\", \"artefacts\": 3}, {\"key\": \"subject-next\", \"title\": \"What I take with me\", \"kind\": \"page\", \"directions\": \"What you can do now that you could not do before, and what you want to try next.\", \"prompt\": \"What comes next?\", \"measure\": \"sentences\", \"least\": 3, \"most\": 10}]}]','2026-11-26 00:00:54.888649',1,'{}');
INSERT INTO `outlines_galleryversion` VALUES (2,1,'[{\"key\": \"project-plan\", \"title\": \"The plan\", \"pockets\": [{\"key\": \"project-task\", \"title\": \"Our task\", \"kind\": \"page\", \"directions\": \"What your group wants to make, and who does what.\", \"prompt\": \"What is your part?\", \"measure\": \"sentences\", \"least\": 2, \"most\": 8}, {\"key\": \"project-sources\", \"title\": \"Where we look\", \"kind\": \"links\", \"directions\": \"Pages your group uses.\", \"artefacts\": 2}]}, {\"key\": \"project-work\", \"title\": \"The work\", \"pockets\": [{\"key\": \"project-half\", \"title\": \"Half-way\", \"kind\": \"evidence\", \"directions\": \"Show where your part stands.\", \"prompt\": \"What works, and what does not yet?\", \"artefacts\": 1, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 2, \"most\": 5}, {\"key\": \"project-result\", \"title\": \"The result\", \"kind\": \"evidence\", \"directions\": \"Show what your group made.\", \"prompt\": \"What did you add to it?\", \"artefacts\": 2, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 2, \"most\": 5}]}, {\"key\": \"project-look\", \"title\": \"Looking back\", \"pockets\": [{\"key\": \"project-together\", \"title\": \"Working together\", \"kind\": \"page\", \"directions\": \"What went well in your group, and what you would do otherwise.\", \"prompt\": \"What did you learn about working with others?\", \"measure\": \"sentences\", \"least\": 3, \"most\": 10}]}]','2026-11-26 00:00:54.890873',2,'{}');
INSERT INTO `outlines_galleryversion` VALUES (3,1,'[{\"key\": \"leavers-where\", \"title\": \"Where I am going\", \"pockets\": [{\"key\": \"leavers-plan\", \"title\": \"My plan\", \"kind\": \"page\", \"directions\": \"What you would like to do after school, and what you need for it.\", \"prompt\": \"What comes next?\", \"measure\": \"sentences\", \"least\": 2, \"most\": 10}, {\"key\": \"leavers-good\", \"title\": \"What I am good at\", \"kind\": \"page\", \"directions\": \"With an example of each.\", \"prompt\": \"How do you know?\", \"measure\": \"sentences\", \"least\": 2, \"most\": 10}]}, {\"key\": \"leavers-proof\", \"title\": \"Proof\", \"pockets\": [{\"key\": \"leavers-work\", \"title\": \"Work that shows it\", \"kind\": \"evidence\", \"directions\": \"Three pieces of work from any class.\", \"prompt\": \"What does it show you can do?\", \"artefacts\": 3, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 2, \"most\": 6}, {\"key\": \"leavers-placement\", \"title\": \"Placement\", \"kind\": \"evidence\", \"directions\": \"A picture or a letter from your placement.\", \"prompt\": \"What did you learn there?\", \"artefacts\": 1, \"reflection_on_each\": true, \"measure\": \"sentences\", \"least\": 3, \"most\": 8}]}, {\"key\": \"leavers-next\", \"title\": \"The next step\", \"pockets\": [{\"key\": \"leavers-steps\", \"title\": \"What I will do this year\", \"kind\": \"page\", \"directions\": \"Two or three things, each with the month in which you do it.\", \"prompt\": \"Who can help you?\", \"measure\": \"sentences\", \"least\": 2, \"most\": 8}]}]','2026-11-26 00:00:54.892445',3,'{}');
INSERT INTO `outlines_galleryversion` VALUES (4,1,'[{\"key\": \"reading\", \"title\": \"My reading\", \"pockets\": [{\"key\": \"reading-log\", \"title\": \"Reading record\", \"kind\": \"log\", \"directions\": \"One row each time you read. Long books may stand here often.\", \"rows_per_week\": 2, \"log\": {\"columns\": [{\"key\": \"day\", \"title\": \"Date\", \"type\": \"date\", \"required\": true}, {\"key\": \"title\", \"title\": \"Title\", \"type\": \"text\", \"required\": true}, {\"key\": \"author\", \"title\": \"Author\", \"type\": \"text\"}, {\"key\": \"kind\", \"title\": \"Kind\", \"type\": \"choice\", \"choices\": [\"Story\", \"Poems\", \"Play\", \"Facts\", \"Magazine or paper\", \"Other\"]}, {\"key\": \"pages\", \"title\": \"Pages\", \"type\": \"number\", \"required\": true, \"unit\": \"pages\"}, {\"key\": \"thought\", \"title\": \"What I thought\", \"type\": \"long_text\", \"measure\": \"sentences\", \"least\": 1, \"most\": 4}, {\"key\": \"finished\", \"title\": \"Finished\", \"type\": \"yes_no\"}], \"target\": {\"column\": \"pages\", \"amount\": \"100\", \"each_week\": true}}}, {\"key\": \"reading-friend\", \"title\": \"For a friend\", \"kind\": \"page\", \"directions\": \"Choose one of them and say for whom it is.\", \"prompt\": \"Who should read it, and why?\", \"measure\": \"sentences\", \"least\": 3, \"most\": 8}]}]','2026-11-26 00:00:54.893478',4,'{}');
INSERT INTO `outlines_galleryversion` VALUES (5,1,'[{\"key\": \"lab-before\", \"title\": \"Before\", \"pockets\": [{\"key\": \"lab-question\", \"title\": \"Question\", \"kind\": \"page\", \"directions\": \"What you want to know, what you think will happen, and why.\", \"prompt\": \"What do you expect?\", \"measure\": \"sentences\", \"least\": 2, \"most\": 8}]}, {\"key\": \"lab\", \"title\": \"At the bench\", \"pockets\": [{\"key\": \"lab-log\", \"title\": \"Readings\", \"kind\": \"log\", \"directions\": \"Write each reading down when you take it, also the ones that look wrong.\", \"rows\": 9, \"log\": {\"columns\": [{\"key\": \"day\", \"title\": \"Date\", \"type\": \"date\", \"required\": true}, {\"key\": \"run\", \"title\": \"Run\", \"type\": \"number\", \"required\": true}, {\"key\": \"what\", \"title\": \"What was measured\", \"type\": \"text\", \"required\": true}, {\"key\": \"value\", \"title\": \"Reading\", \"type\": \"number\", \"required\": true}, {\"key\": \"unit\", \"title\": \"Unit of the reading\", \"type\": \"text\", \"required\": true}, {\"key\": \"conditions\", \"title\": \"Conditions\", \"type\": \"long_text\"}, {\"key\": \"photo\", \"title\": \"Photo\", \"type\": \"artefact\"}, {\"key\": \"trust\", \"title\": \"I trust it\", \"type\": \"yes_no\"}], \"order\": \"run\"}}]}, {\"key\": \"lab-after\", \"title\": \"After\", \"pockets\": [{\"key\": \"lab-says\", \"title\": \"What the numbers say\", \"kind\": \"page\", \"directions\": \"With at least one reading that surprised you.\", \"prompt\": \"What did you find out, and how sure are you?\", \"measure\": \"sentences\", \"least\": 4, \"most\": 12}]}]','2026-11-26 00:00:54.894461',5,'{}');
INSERT INTO `outlines_galleryversion` VALUES (6,1,'[{\"key\": \"credits\", \"title\": \"My way to the certificate\", \"pockets\": [{\"key\": \"credits-log\", \"title\": \"Courses and credits\", \"kind\": \"log\", \"directions\": \"All courses you plan, year by year. Change a row when a plan changes.\", \"rows\": 6, \"log\": {\"columns\": [{\"key\": \"year\", \"title\": \"Year\", \"type\": \"choice\", \"required\": true, \"choices\": [\"Year 9\", \"Year 10\", \"Year 11\", \"Year 12\"]}, {\"key\": \"course\", \"title\": \"Course\", \"type\": \"text\", \"required\": true}, {\"key\": \"area\", \"title\": \"Area\", \"type\": \"choice\", \"choices\": [\"Languages\", \"Mathematics\", \"Sciences\", \"Humanities\", \"Arts\", \"Sport\", \"Practical work\", \"Other\"]}, {\"key\": \"credits\", \"title\": \"Credits\", \"type\": \"number\", \"required\": true, \"unit\": \"credits\"}, {\"key\": \"state\", \"title\": \"State\", \"type\": \"choice\", \"required\": true, \"choices\": [\"Planned\", \"Under way\", \"Passed\", \"Dropped\"]}, {\"key\": \"proof\", \"title\": \"Proof\", \"type\": \"artefact\"}], \"order\": \"year\", \"target\": {\"column\": \"credits\", \"amount\": \"24\", \"each_week\": false}}}, {\"key\": \"credits-why\", \"title\": \"Why this plan\", \"kind\": \"page\", \"directions\": \"What it leads to, and what you do if a course falls out.\", \"prompt\": \"Where does this lead?\", \"measure\": \"sentences\", \"least\": 3, \"most\": 10}]}]','2026-11-26 00:00:54.895404',6,'{}');
INSERT INTO `outlines_galleryversion` VALUES (7,1,'[{\"key\": \"scores\", \"title\": \"My year in tests\", \"pockets\": [{\"key\": \"scores-log\", \"title\": \"Tests\", \"kind\": \"log\", \"directions\": \"A row for each test you get back.\", \"rows\": 6, \"log\": {\"columns\": [{\"key\": \"day\", \"title\": \"Date\", \"type\": \"date\", \"required\": true}, {\"key\": \"test\", \"title\": \"Test\", \"type\": \"text\", \"required\": true}, {\"key\": \"area\", \"title\": \"Area\", \"type\": \"choice\", \"choices\": [\"Reading\", \"Writing\", \"Number\", \"Shape\", \"Science\", \"Other\"]}, {\"key\": \"points\", \"title\": \"Points\", \"type\": \"number\", \"required\": true, \"unit\": \"points\"}, {\"key\": \"of\", \"title\": \"Out of\", \"type\": \"number\", \"required\": true, \"unit\": \"points\"}, {\"key\": \"next\", \"title\": \"What I practise next\", \"type\": \"long_text\", \"required\": true, \"measure\": \"sentences\", \"least\": 1, \"most\": 3}, {\"key\": \"paper\", \"title\": \"The paper\", \"type\": \"artefact\"}], \"newest_first\": true}}, {\"key\": \"scores-look\", \"title\": \"Looking back\", \"kind\": \"page\", \"directions\": \"What went up, what did not, and what helped.\", \"prompt\": \"What helped you most?\", \"measure\": \"sentences\", \"least\": 3, \"most\": 8}]}]','2026-11-26 00:00:54.896393',7,'{}');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `outlines_pocket` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(200) NOT NULL,
  `kind` varchar(10) NOT NULL,
  `position` smallint(5) unsigned NOT NULL CHECK (`position` >= 0),
  `directions` longtext NOT NULL,
  `prompt` varchar(300) NOT NULL,
  `artefacts` smallint(5) unsigned NOT NULL CHECK (`artefacts` >= 0),
  `reflection_on_each` tinyint(1) NOT NULL,
  `measure` varchar(10) NOT NULL,
  `least` smallint(5) unsigned NOT NULL CHECK (`least` >= 0),
  `most` smallint(5) unsigned DEFAULT NULL CHECK (`most` >= 0),
  `starter` longtext NOT NULL,
  `counts` tinyint(1) NOT NULL,
  `opens` date DEFAULT NULL,
  `retired_at` datetime(6) DEFAULT NULL,
  `section_id` bigint(20) NOT NULL,
  `old_starters` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`old_starters`)),
  `takes` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`takes`)),
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `key` varchar(32) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `log` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`log`)),
  `rows` smallint(5) unsigned NOT NULL CHECK (`rows` >= 0),
  `rows_per_week` smallint(5) unsigned NOT NULL CHECK (`rows_per_week` >= 0),
  `each_question` tinyint(1) NOT NULL,
  `pattern_id` bigint(20) DEFAULT NULL,
  `question` varchar(36) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `variants` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`variants`)),
  `starter_hashes` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`starter_hashes`)),
  `spoken` tinyint(1) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `outlines_pocket_section_id_3af49526_fk_outlines_section_id` (`section_id`),
  KEY `outlines_pocket_pattern_id_4fa2328c_fk_outlines_pocket_id` (`pattern_id`),
  CONSTRAINT `outlines_pocket_pattern_id_4fa2328c_fk_outlines_pocket_id` FOREIGN KEY (`pattern_id`) REFERENCES `outlines_pocket` (`id`),
  CONSTRAINT `outlines_pocket_section_id_3af49526_fk_outlines_section_id` FOREIGN KEY (`section_id`) REFERENCES `outlines_section` (`id`),
  CONSTRAINT `length_from_to` CHECK (`most` is null or `most` >= `least`)
) ENGINE=InnoDB AUTO_INCREMENT=7 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `outlines_pocket` VALUES (1,'Recipe card','evidence',0,'','',2,1,'sentences',2,3,'',1,NULL,NULL,1,'[]','[]',1,'788fcca8d4376ef2','{}',0,0,0,NULL,'','{}','[]',0);
INSERT INTO `outlines_pocket` VALUES (2,'About me','page',1,'','',0,0,'',1,NULL,'',1,NULL,NULL,1,'[]','[]',1,'c1a82af935a14ae5','{}',0,0,0,NULL,'','{}','[]',0);
INSERT INTO `outlines_pocket` VALUES (3,'Plan','evidence',2,'','',1,1,'sentences',2,3,'',1,NULL,NULL,1,'[]','[]',1,'943e8c8ac23471dc','{}',0,0,0,NULL,'','{}','[]',0);
INSERT INTO `outlines_pocket` VALUES (4,'Log','log',3,'','',0,0,'',1,NULL,'',1,NULL,NULL,1,'[]','[]',1,'5369695e4e6cdb87','{\"columns\": [{\"key\": \"a\", \"title\": \"Weather\", \"type\": \"text\"}, {\"key\": \"b\", \"title\": \"Photo\", \"type\": \"artefact\"}]}',0,0,0,NULL,'','{}','[]',0);
INSERT INTO `outlines_pocket` VALUES (5,'Seeds','evidence',4,'','',1,1,'sentences',2,3,'',1,NULL,NULL,1,'[]','[]',1,'3fab8da9df2192c7','{}',0,0,0,NULL,'','{}','[\"6ab297926189b1e0171e5a1cd0639b3f0d9cf6879ca540e82e9713fe0fc8bc8d\", \"6ab297926189b1e0171e5a1cd0639b3f0d9cf6879ca540e82e9713fe0fc8bc8d\"]',0);
INSERT INTO `outlines_pocket` VALUES (6,'Water','evidence',5,'','',1,1,'sentences',2,3,'',1,NULL,NULL,1,'[]','[]',1,'f27d8cf3f4aa17b9','{}',0,0,0,NULL,'','{\"by\": \"random\", \"seed\": 1, \"versions\": [{\"key\": \"a\", \"name\": \"A\", \"directions\": \"One\"}, {\"key\": \"b\", \"name\": \"B\", \"directions\": \"Two\"}]}','[]',0);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `outlines_section` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(200) NOT NULL,
  `position` smallint(5) unsigned NOT NULL CHECK (`position` >= 0),
  `template_id` bigint(20) NOT NULL,
  `key` varchar(32) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `repeats` tinyint(1) NOT NULL,
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `was_unit` tinyint(1) NOT NULL,
  `unit_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `unit_id` (`unit_id`),
  KEY `outlines_section_template_id_2b4ab0a4_fk_outlines_template_id` (`template_id`),
  CONSTRAINT `outlines_section_template_id_2b4ab0a4_fk_outlines_template_id` FOREIGN KEY (`template_id`) REFERENCES `outlines_template` (`id`),
  CONSTRAINT `outlines_section_unit_id_ae681c3f_fk_outlines_unit_id` FOREIGN KEY (`unit_id`) REFERENCES `outlines_unit` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `outlines_section` VALUES (1,'The kitchen',0,1,'d360a096007281fa',0,1,0,NULL);
INSERT INTO `outlines_section` VALUES (2,'Spare',9,1,'d0fbbe2f186c435c',1,1,0,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `outlines_template` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(200) NOT NULL,
  `group_id` bigint(20) DEFAULT NULL,
  `published_id` bigint(20) DEFAULT NULL,
  `adopted_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `group_id` (`group_id`),
  UNIQUE KEY `published_id` (`published_id`),
  KEY `outlines_template_adopted_id_d08fc1a3_fk_outlines_` (`adopted_id`),
  CONSTRAINT `outlines_template_adopted_id_d08fc1a3_fk_outlines_` FOREIGN KEY (`adopted_id`) REFERENCES `outlines_galleryversion` (`id`),
  CONSTRAINT `outlines_template_group_id_51fad129_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`),
  CONSTRAINT `outlines_template_published_id_4f690b2d_fk_outlines_` FOREIGN KEY (`published_id`) REFERENCES `outlines_gallerytemplate` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `outlines_template` VALUES (1,'8 Plot',1,NULL,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `outlines_unit` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(120) NOT NULL,
  `questions` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`questions`)),
  `opens` date DEFAULT NULL,
  `position` smallint(5) unsigned NOT NULL CHECK (`position` >= 0),
  `key` varchar(36) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `pattern_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `unit_once` (`pattern_id`,`key`),
  CONSTRAINT `outlines_unit_pattern_id_b6944787_fk_outlines_section_id` FOREIGN KEY (`pattern_id`) REFERENCES `outlines_section` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_absence` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `first` date NOT NULL,
  `last` date NOT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `people_absence_enrolment_id_661d09b7_fk_people_enrolment_id` (`enrolment_id`),
  CONSTRAINT `people_absence_enrolment_id_661d09b7_fk_people_enrolment_id` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_adjustment` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `extra_days` smallint(5) unsigned NOT NULL CHECK (`extra_days` >= 0),
  `first` date NOT NULL,
  `last` date DEFAULT NULL,
  `reason` longtext NOT NULL,
  `person_id` bigint(20) NOT NULL,
  `agreed_by_id` bigint(20) DEFAULT NULL,
  `fewer_artefacts` smallint(5) unsigned NOT NULL CHECK (`fewer_artefacts` >= 0),
  `percent` smallint(5) unsigned NOT NULL CHECK (`percent` >= 0),
  `spoken` tinyint(1) NOT NULL,
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `without` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`without`)),
  PRIMARY KEY (`id`),
  KEY `people_adjustment_person_id_0d80b242_fk_people_person_id` (`person_id`),
  KEY `people_adjustment_agreed_by_id_3bedff62_fk_people_person_id` (`agreed_by_id`),
  CONSTRAINT `people_adjustment_agreed_by_id_3bedff62_fk_people_person_id` FOREIGN KEY (`agreed_by_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `people_adjustment_person_id_0d80b242_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_adjustment` VALUES (1,1,'2026-09-01',NULL,'',2,NULL,0,100,0,1,'[]');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_enrolment` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `first` date NOT NULL,
  `last` date DEFAULT NULL,
  `picture` varchar(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `tint` smallint(5) unsigned NOT NULL CHECK (`tint` >= 0),
  `person_id` bigint(20) NOT NULL,
  `group_id` bigint(20) NOT NULL,
  `lap` smallint(5) unsigned NOT NULL CHECK (`lap` >= 0),
  `news_seen` int(10) unsigned NOT NULL CHECK (`news_seen` >= 0),
  PRIMARY KEY (`id`),
  UNIQUE KEY `enrolled_once` (`group_id`,`person_id`),
  UNIQUE KEY `peg_picture_once` (`group_id`,`picture`,`tint`,`lap`),
  KEY `people_enrolment_person_id_26e96414_fk_people_person_id` (`person_id`),
  CONSTRAINT `people_enrolment_group_id_82cefd8e_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`),
  CONSTRAINT `people_enrolment_person_id_26e96414_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=4 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_enrolment` VALUES (1,'2026-09-07',NULL,'picture-0',0,2,1,0,0);
INSERT INTO `people_enrolment` VALUES (2,'2026-09-07',NULL,'picture-1',1,3,1,0,0);
INSERT INTO `people_enrolment` VALUES (3,'2026-09-07','2026-11-04','picture-2',2,4,1,0,0);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_feedaddress` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `made_at` datetime(6) NOT NULL,
  `person_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `sha256` (`sha256`),
  UNIQUE KEY `person_id` (`person_id`),
  CONSTRAINT `people_feedaddress_person_id_c832841a_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_nonschoolday` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `day` date NOT NULL,
  `name` varchar(100) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `day` (`day`)
) ENGINE=InnoDB AUTO_INCREMENT=6 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_nonschoolday` VALUES (1,'2026-10-19','Half-term holiday');
INSERT INTO `people_nonschoolday` VALUES (2,'2026-10-20','Half-term holiday');
INSERT INTO `people_nonschoolday` VALUES (3,'2026-10-21','Half-term holiday');
INSERT INTO `people_nonschoolday` VALUES (4,'2026-10-22','Half-term holiday');
INSERT INTO `people_nonschoolday` VALUES (5,'2026-10-23','Half-term holiday');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_period` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `name` varchar(40) NOT NULL,
  `group_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `period_once_in_group` (`group_id`,`name`),
  CONSTRAINT `people_period_group_id_7ce4624c_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_periodmembership` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `first` date NOT NULL,
  `last` date DEFAULT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  `period_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `people_periodmembers_enrolment_id_0330f88f_fk_people_en` (`enrolment_id`),
  KEY `people_periodmembership_period_id_5a0d6d4b_fk_people_period_id` (`period_id`),
  CONSTRAINT `people_periodmembers_enrolment_id_0330f88f_fk_people_en` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`),
  CONSTRAINT `people_periodmembership_period_id_5a0d6d4b_fk_people_period_id` FOREIGN KEY (`period_id`) REFERENCES `people_period` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_person` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `password` varchar(128) NOT NULL,
  `last_login` datetime(6) DEFAULT NULL,
  `username` varchar(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL,
  `given_name` varchar(100) NOT NULL,
  `family_name` varchar(100) NOT NULL,
  `email` varchar(254) NOT NULL,
  `is_active` tinyint(1) NOT NULL,
  `is_administrator` tinyint(1) NOT NULL,
  `is_staff` tinyint(1) NOT NULL,
  `number` varchar(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL,
  `reading` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`reading`)),
  PRIMARY KEY (`id`),
  UNIQUE KEY `username` (`username`),
  UNIQUE KEY `number` (`number`)
) ENGINE=InnoDB AUTO_INCREMENT=5 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_person` VALUES (1,'argon2$argon2id$v=19$m=102400,t=2,p=8$QjZqT0VsekRHQkhraHRCTnpkRUxpUQ$/r3CEWvOlfCAsXFJmXDxmy5mlY83SYSSK8cHxZhscXI',NULL,'alead','R.','Alead','',1,0,1,NULL,'{}');
INSERT INTO `people_person` VALUES (2,'argon2$argon2id$v=19$m=102400,t=2,p=8$Q0JSTk9rYXlTVnY4TGcxWlJKY0w2Rw$llW+WTUFsu9w9tDKZU/L0iYuTM8TVHNvC89nTYupHkY',NULL,'astudent','Thandi','Dube','',1,0,0,NULL,'{}');
INSERT INTO `people_person` VALUES (3,'argon2$argon2id$v=19$m=102400,t=2,p=8$VjlOdlZ0WnJFaUJFbzhSeDFnRHFQNw$rJjsS6IxgYYgYJPG2Ilhnmq4iIp9ZkdnyuJlumYkxZw',NULL,'asecond','Sam','Reyes','',1,0,0,NULL,'{}');
INSERT INTO `people_person` VALUES (4,'argon2$argon2id$v=19$m=102400,t=2,p=8$WUdpcUhvalB0WTN0dm5wdUxQWjdrNA$PZEoyI5UORT/tCyhNOp7Dsbr7aOxAT1sgc0lNNeItTA',NULL,'aleaver','Lee','Moss','',1,0,0,NULL,'{}');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_rosterchange` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `at` datetime(6) NOT NULL,
  `data` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`data`)),
  `undone_at` datetime(6) DEFAULT NULL,
  `group_id` bigint(20) NOT NULL,
  `person_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `people_rosterchange_group_id_a7c9f739_fk_people_teachinggroup_id` (`group_id`),
  KEY `people_rosterchange_person_id_1bcd3aab_fk_people_person_id` (`person_id`),
  CONSTRAINT `people_rosterchange_group_id_a7c9f739_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`),
  CONSTRAINT `people_rosterchange_person_id_1bcd3aab_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_rosterchange` VALUES (1,'2026-11-04 10:00:00.000000','{\"people\": [], \"enrolments\": [], \"fields\": [], \"memberships\": [], \"ended\": [], \"moved\": [], \"groups\": [], \"ungrouped\": [], \"left\": [[3, null]], \"absences\": []}',NULL,1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_rosterdrop` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `name` varchar(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `at` datetime(6) NOT NULL,
  `state` varchar(10) NOT NULL,
  `message` varchar(500) NOT NULL,
  `table` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`table`)),
  `change_id` bigint(20) DEFAULT NULL,
  `group_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `people_rosterdrop_change_id_cd81b82c_fk_people_rosterchange_id` (`change_id`),
  KEY `people_rosterdrop_group_id_19bc22ef_fk_people_teachinggroup_id` (`group_id`),
  CONSTRAINT `people_rosterdrop_change_id_cd81b82c_fk_people_rosterchange_id` FOREIGN KEY (`change_id`) REFERENCES `people_rosterchange` (`id`),
  CONSTRAINT `people_rosterdrop_group_id_19bc22ef_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_rosterdrop` VALUES (1,'list.csv','','2026-11-04 10:00:00.000000','pending','','{\"heading\": [], \"rows\": [[\"Dube\"]], \"columns\": [\"name\"]}',NULL,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_school` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `name` varchar(200) NOT NULL,
  `zone` varchar(60) NOT NULL,
  `weekdays` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`weekdays`)),
  `calendar_key` varchar(32) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_school` VALUES (1,'Larkfield School','Europe/London','[0, 1, 2, 3, 4]','5a568af3036e1ef3cb1b0530cba44ee0');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_signincard` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `made_at` datetime(6) NOT NULL,
  `voided_at` datetime(6) DEFAULT NULL,
  `made_by_id` bigint(20) DEFAULT NULL,
  `person_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `sha256` (`sha256`),
  KEY `people_signincard_made_by_id_d161beba_fk_people_person_id` (`made_by_id`),
  KEY `people_signincard_person_id_71269d59_fk_people_person_id` (`person_id`),
  CONSTRAINT `people_signincard_made_by_id_d161beba_fk_people_person_id` FOREIGN KEY (`made_by_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `people_signincard_person_id_71269d59_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_staffrole` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `role` varchar(12) NOT NULL,
  `person_id` bigint(20) NOT NULL,
  `group_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `one_staff_role` (`group_id`,`person_id`),
  KEY `people_staffrole_person_id_2fd6f699_fk_people_person_id` (`person_id`),
  CONSTRAINT `people_staffrole_group_id_f4da3997_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`),
  CONSTRAINT `people_staffrole_person_id_2fd6f699_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_staffrole` VALUES (1,'lead',1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_teachinggroup` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `name` varchar(200) NOT NULL,
  `kind` varchar(10) NOT NULL,
  `first` date NOT NULL,
  `last` date NOT NULL,
  `takes_lists_by_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  KEY `people_teachinggroup_takes_lists_by_id_16f372e5_fk_people_pe` (`takes_lists_by_id`),
  CONSTRAINT `people_teachinggroup_takes_lists_by_id_16f372e5_fk_people_pe` FOREIGN KEY (`takes_lists_by_id`) REFERENCES `people_person` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_teachinggroup` VALUES (1,'8 Plot','class','2026-09-07','2026-12-14',NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_term` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `name` varchar(100) NOT NULL,
  `first` date NOT NULL,
  `last` date NOT NULL,
  PRIMARY KEY (`id`),
  CONSTRAINT `term_ends_after_start` CHECK (`last` >= `first`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `people_term` VALUES (1,'Autumn term','2026-09-07','2026-12-11');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_workinggroup` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `name` varchar(100) NOT NULL,
  `group_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `working_group_once` (`group_id`,`name`),
  CONSTRAINT `people_workinggroup_group_id_2743b593_fk_people_teachinggroup_id` FOREIGN KEY (`group_id`) REFERENCES `people_teachinggroup` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `people_workinggroup_members` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `workinggroup_id` bigint(20) NOT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `people_workinggroup_memb_workinggroup_id_enrolmen_b7b83702_uniq` (`workinggroup_id`,`enrolment_id`),
  KEY `people_workinggroup__enrolment_id_0858b92a_fk_people_en` (`enrolment_id`),
  CONSTRAINT `people_workinggroup__enrolment_id_0858b92a_fk_people_en` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`),
  CONSTRAINT `people_workinggroup__workinggroup_id_153438de_fk_people_wo` FOREIGN KEY (`workinggroup_id`) REFERENCES `people_workinggroup` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_artefact` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `kind` varchar(10) NOT NULL,
  `title` varchar(130) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `came_sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `link` varchar(2000) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `made_at` datetime(6) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  `stored_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  KEY `portfolios_artefact_portfolio_id_53458ef7_fk_portfolio` (`portfolio_id`),
  KEY `portfolios_artefact_stored_id_ecb5563a_fk_portfolio` (`stored_id`),
  CONSTRAINT `portfolios_artefact_portfolio_id_53458ef7_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`),
  CONSTRAINT `portfolios_artefact_stored_id_ecb5563a_fk_portfolio` FOREIGN KEY (`stored_id`) REFERENCES `portfolios_storedfile` (`id`),
  CONSTRAINT `artefact_link_text_or_bytes` CHECK (`kind` in ('link','text') and `stored_id` is null or `kind` not in ('link','text') and `stored_id` is not null)
) ENGINE=InnoDB AUTO_INCREMENT=9 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_artefact` VALUES (1,'picture','card.jpg','a49462a4defc2e137efb9bd8bdfb91c521fdac067474ff5fe0a67c1860fcc616','','2026-11-04 10:00:00.000000',1,1);
INSERT INTO `portfolios_artefact` VALUES (2,'picture','card.jpg','a49462a4defc2e137efb9bd8bdfb91c521fdac067474ff5fe0a67c1860fcc616','','2026-11-04 10:00:00.000000',1,1);
INSERT INTO `portfolios_artefact` VALUES (3,'sound','said.wav','','','2026-11-04 10:00:00.000000',1,2);
INSERT INTO `portfolios_artefact` VALUES (4,'text','Notes','','','2026-11-04 10:00:00.000000',1,NULL);
INSERT INTO `portfolios_artefact` VALUES (5,'file','table.csv','6ab297926189b1e0171e5a1cd0639b3f0d9cf6879ca540e82e9713fe0fc8bc8d','','2026-11-04 10:00:00.000000',1,3);
INSERT INTO `portfolios_artefact` VALUES (6,'file','seeds.txt','6eb228fb5b59ab49a45a48bdd9e5f0ed65b43afb52ec72cc825a567986630827','','2026-11-04 10:00:00.000000',1,4);
INSERT INTO `portfolios_artefact` VALUES (7,'file','seeds.txt','76cf386aec2e0cc64517e04ecef5cc0f0a152f3d3307485a6aa3eeec94d4a8dc','','2026-11-04 10:00:00.000000',1,5);
INSERT INTO `portfolios_artefact` VALUES (8,'sound','said.wav','4e9cc5bbce2136140462d11c5fec6e6c1ed10602c2bca874dbb58e7b9be21092','','2026-11-04 10:00:00.000000',1,2);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_comment` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `text` longtext NOT NULL,
  `at` datetime(6) NOT NULL,
  `removed_at` datetime(6) DEFAULT NULL,
  `evidence_id` bigint(20) DEFAULT NULL,
  `page_id` bigint(20) DEFAULT NULL,
  `person_id` bigint(20) NOT NULL,
  `pocket_id` bigint(20) DEFAULT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `portfolios_comment_evidence_id_415f70a4_fk_portfolio` (`evidence_id`),
  KEY `portfolios_comment_page_id_c8cf5d30_fk_portfolios_loosepage_id` (`page_id`),
  KEY `portfolios_comment_person_id_1e4ec8da_fk_people_person_id` (`person_id`),
  KEY `portfolios_comment_pocket_id_a60a511b_fk_outlines_pocket_id` (`pocket_id`),
  KEY `portfolios_comment_portfolio_id_ee8ceb9a_fk_portfolio` (`portfolio_id`),
  CONSTRAINT `portfolios_comment_evidence_id_415f70a4_fk_portfolio` FOREIGN KEY (`evidence_id`) REFERENCES `portfolios_evidence` (`id`),
  CONSTRAINT `portfolios_comment_page_id_c8cf5d30_fk_portfolios_loosepage_id` FOREIGN KEY (`page_id`) REFERENCES `portfolios_loosepage` (`id`),
  CONSTRAINT `portfolios_comment_person_id_1e4ec8da_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `portfolios_comment_pocket_id_a60a511b_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`),
  CONSTRAINT `portfolios_comment_portfolio_id_ee8ceb9a_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`),
  CONSTRAINT `comment_on_pocket_or_page` CHECK (`page_id` is null and `pocket_id` is not null or `evidence_id` is null and `page_id` is not null and `pocket_id` is null)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_comment` VALUES (1,'Well begun.','2026-11-04 10:00:00.000000',NULL,1,NULL,1,3,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_evidence` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `position` int(10) unsigned NOT NULL CHECK (`position` >= 0),
  `text` longtext NOT NULL,
  `words` int(10) unsigned NOT NULL CHECK (`words` >= 0),
  `sentences` int(10) unsigned NOT NULL CHECK (`sentences` >= 0),
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `changed_at` datetime(6) NOT NULL,
  `removed_at` datetime(6) DEFAULT NULL,
  `page_of` bigint(20) GENERATED ALWAYS AS (case when `artefact_id` is null then `pocket_id` else NULL end) STORED,
  `artefact_id` bigint(20) DEFAULT NULL,
  `pocket_id` bigint(20) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  `html` longtext NOT NULL,
  `spoken_id` bigint(20) DEFAULT NULL,
  `starter_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `one_page_a_pocket` (`portfolio_id`,`page_of`),
  KEY `portfolios_evidence_artefact_id_f605fc24_fk_portfolio` (`artefact_id`),
  KEY `portfolios_evidence_pocket_id_b38004cd_fk_outlines_pocket_id` (`pocket_id`),
  KEY `portfolios_evidence_spoken_id_6995d555_fk_portfolios_artefact_id` (`spoken_id`),
  KEY `portfolios_evidence_starter_id_4c6aabb1_fk_portfolio` (`starter_id`),
  CONSTRAINT `portfolios_evidence_artefact_id_f605fc24_fk_portfolio` FOREIGN KEY (`artefact_id`) REFERENCES `portfolios_artefact` (`id`),
  CONSTRAINT `portfolios_evidence_pocket_id_b38004cd_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`),
  CONSTRAINT `portfolios_evidence_portfolio_id_a54fd8c8_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`),
  CONSTRAINT `portfolios_evidence_spoken_id_6995d555_fk_portfolios_artefact_id` FOREIGN KEY (`spoken_id`) REFERENCES `portfolios_artefact` (`id`),
  CONSTRAINT `portfolios_evidence_starter_id_4c6aabb1_fk_portfolio` FOREIGN KEY (`starter_id`) REFERENCES `portfolios_storedfile` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=6 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_evidence` VALUES (1,1,'One thing. Another thing.',4,2,1,'2026-11-04 10:00:00.000000',NULL,NULL,1,3,1,'',8,NULL);
INSERT INTO `portfolios_evidence` VALUES (2,1,'One thing. Another thing.',4,2,1,'2026-11-04 10:00:00.000000',NULL,NULL,2,1,1,'',NULL,NULL);
INSERT INTO `portfolios_evidence` VALUES (3,2,'',0,0,0,'2026-11-04 10:00:00.000000',NULL,NULL,4,3,1,'',NULL,NULL);
INSERT INTO `portfolios_evidence` VALUES (4,1,'',0,0,0,'2026-11-04 10:00:00.000000',NULL,NULL,5,5,1,'',NULL,3);
INSERT INTO `portfolios_evidence` VALUES (5,2,'',0,0,0,'2026-11-04 10:00:00.000000',NULL,NULL,7,5,1,'',NULL,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_logrow` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `values` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`values`)),
  `complete` tinyint(1) NOT NULL,
  `week` date DEFAULT NULL,
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `placed_at` datetime(6) NOT NULL,
  `changed_at` datetime(6) NOT NULL,
  `removed_at` datetime(6) DEFAULT NULL,
  `pocket_id` bigint(20) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `portfolios_logrow_pocket_id_9979c2b6_fk_outlines_pocket_id` (`pocket_id`),
  KEY `portfolios_logrow_portfolio_id_26300ed3_fk_portfolio` (`portfolio_id`),
  CONSTRAINT `portfolios_logrow_pocket_id_9979c2b6_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`),
  CONSTRAINT `portfolios_logrow_portfolio_id_26300ed3_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_logrow` VALUES (1,'{\"a\": \"dry\"}',1,NULL,1,'2026-11-04 10:00:00.000000','2026-11-04 10:00:00.000000',NULL,4,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_look` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `at` datetime(6) NOT NULL,
  `before` datetime(6) DEFAULT NULL,
  `person_id` bigint(20) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `look_once` (`person_id`,`portfolio_id`),
  KEY `portfolios_look_portfolio_id_ef6c7030_fk_portfolios_portfolio_id` (`portfolio_id`),
  CONSTRAINT `portfolios_look_person_id_b4284de1_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `portfolios_look_portfolio_id_ef6c7030_fk_portfolios_portfolio_id` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_loosepage` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(120) NOT NULL,
  `text` longtext NOT NULL,
  `words` int(10) unsigned NOT NULL CHECK (`words` >= 0),
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `position` smallint(5) unsigned NOT NULL CHECK (`position` >= 0),
  `changed_at` datetime(6) NOT NULL,
  `removed_at` datetime(6) DEFAULT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  `html` longtext NOT NULL,
  `sentences` int(10) unsigned NOT NULL CHECK (`sentences` >= 0),
  PRIMARY KEY (`id`),
  KEY `portfolios_loosepage_portfolio_id_1fd803da_fk_portfolio` (`portfolio_id`),
  CONSTRAINT `portfolios_loosepage_portfolio_id_1fd803da_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_loosepage` VALUES (1,'Ideas','',0,0,1,'2026-11-04 10:00:00.000000',NULL,1,'',0);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_pocketcontent` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `pieces` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`pieces`)),
  `has_work` tinyint(1) NOT NULL,
  `last_work_at` datetime(6) DEFAULT NULL,
  `pocket_id` bigint(20) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `content_once` (`portfolio_id`,`pocket_id`),
  KEY `portfolios_pocketcon_pocket_id_c3dd73e3_fk_outlines_` (`pocket_id`),
  CONSTRAINT `portfolios_pocketcon_pocket_id_c3dd73e3_fk_outlines_` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`),
  CONSTRAINT `portfolios_pocketcon_portfolio_id_1e3f8f6a_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=5 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_pocketcontent` VALUES (1,'[[4, 2, 0, 0, 1], [0, 0, 1]]',1,'2026-11-04 10:00:00.000000',3,1);
INSERT INTO `portfolios_pocketcontent` VALUES (2,'[[4, 2, 0]]',1,'2026-11-04 10:00:00.000000',1,1);
INSERT INTO `portfolios_pocketcontent` VALUES (3,'[[1, 0, 0]]',1,'2026-11-04 10:00:00.000000',4,1);
INSERT INTO `portfolios_pocketcontent` VALUES (4,'[[0, 0, 1], [0, 0, 0]]',1,'2026-11-04 10:00:00.000000',5,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_pocketfile` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `role` varchar(10) NOT NULL,
  `kind` varchar(10) NOT NULL,
  `title` varchar(130) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `came_sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `made_at` datetime(6) NOT NULL,
  `removed_at` datetime(6) DEFAULT NULL,
  `pocket_id` bigint(20) NOT NULL,
  `stored_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `portfolios_pocketfile_pocket_id_852073c7_fk_outlines_pocket_id` (`pocket_id`),
  KEY `portfolios_pocketfil_stored_id_022bc19c_fk_portfolio` (`stored_id`),
  CONSTRAINT `portfolios_pocketfil_stored_id_022bc19c_fk_portfolio` FOREIGN KEY (`stored_id`) REFERENCES `portfolios_storedfile` (`id`),
  CONSTRAINT `portfolios_pocketfile_pocket_id_852073c7_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_pocketfile` VALUES (1,'directions','picture','plan.jpg','a49462a4defc2e137efb9bd8bdfb91c521fdac067474ff5fe0a67c1860fcc616','2026-11-04 10:00:00.000000',NULL,3,1);
INSERT INTO `portfolios_pocketfile` VALUES (2,'starter','file','table.csv','6ab297926189b1e0171e5a1cd0639b3f0d9cf6879ca540e82e9713fe0fc8bc8d','2026-11-04 10:00:00.000000',NULL,5,3);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_portfolio` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `enrolment_id` bigint(20) NOT NULL,
  `cover_picture_id` bigint(20) DEFAULT NULL,
  `cover_tint` smallint(5) unsigned DEFAULT NULL CHECK (`cover_tint` >= 0),
  `cover_title` varchar(120) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `enrolment_id` (`enrolment_id`),
  KEY `portfolios_portfolio_cover_picture_id_05671601_fk_portfolio` (`cover_picture_id`),
  CONSTRAINT `portfolios_portfolio_cover_picture_id_05671601_fk_portfolio` FOREIGN KEY (`cover_picture_id`) REFERENCES `portfolios_artefact` (`id`),
  CONSTRAINT `portfolios_portfolio_enrolment_id_770bfd51_fk_people_en` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=4 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_portfolio` VALUES (1,1,NULL,NULL,'');
INSERT INTO `portfolios_portfolio` VALUES (2,2,NULL,NULL,'');
INSERT INTO `portfolios_portfolio` VALUES (3,3,NULL,NULL,'');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_preview` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `state` varchar(10) NOT NULL,
  `kind` varchar(10) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `pages` int(10) unsigned NOT NULL CHECK (`pages` >= 0),
  `why` varchar(300) NOT NULL,
  `tries` smallint(5) unsigned NOT NULL CHECK (`tries` >= 0),
  `asked_at` datetime(6) NOT NULL,
  `stored_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `stored_id` (`stored_id`),
  KEY `preview_waiting` (`state`,`asked_at`),
  CONSTRAINT `portfolios_preview_stored_id_f952e606_fk_portfolio` FOREIGN KEY (`stored_id`) REFERENCES `portfolios_storedfile` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=4 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_preview` VALUES (1,'done','tables',0,'',1,'2026-11-04 10:00:00.000000',3);
INSERT INTO `portfolios_preview` VALUES (2,'done','text',0,'',1,'2026-11-04 10:00:00.000000',4);
INSERT INTO `portfolios_preview` VALUES (3,'done','text',0,'',1,'2026-11-04 10:00:00.000000',5);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_shownartefact` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `caption` varchar(300) NOT NULL,
  `wide` tinyint(1) NOT NULL,
  `position` smallint(5) unsigned NOT NULL CHECK (`position` >= 0),
  `evidence_id` bigint(20) NOT NULL,
  `show_page_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `shown_once` (`show_page_id`,`evidence_id`),
  KEY `portfolios_shownarte_evidence_id_9557f560_fk_portfolio` (`evidence_id`),
  CONSTRAINT `portfolios_shownarte_evidence_id_9557f560_fk_portfolio` FOREIGN KEY (`evidence_id`) REFERENCES `portfolios_evidence` (`id`),
  CONSTRAINT `portfolios_shownarte_show_page_id_97b4d03e_fk_portfolio` FOREIGN KEY (`show_page_id`) REFERENCES `portfolios_showpage` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_shownartefact` VALUES (1,'My plan',0,1,1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_showpage` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `title` varchar(120) NOT NULL,
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `opened_at` datetime(6) DEFAULT NULL,
  `opened_by_id` bigint(20) DEFAULT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `portfolio_id` (`portfolio_id`),
  KEY `portfolios_showpage_opened_by_id_56f9062c_fk_people_person_id` (`opened_by_id`),
  CONSTRAINT `portfolios_showpage_opened_by_id_56f9062c_fk_people_person_id` FOREIGN KEY (`opened_by_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `portfolios_showpage_portfolio_id_b66c5f5d_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_showpage` VALUES (1,'Mine',1,'2026-11-04 10:00:00.000000',1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_standinghold` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `handin_id` bigint(20) NOT NULL,
  `title` varchar(200) NOT NULL,
  `wanted` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`wanted`)),
  `since` datetime(6) NOT NULL,
  `pocket_id` bigint(20) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `held_once` (`portfolio_id`,`pocket_id`,`handin_id`),
  KEY `portfolios_standinghold_pocket_id_6fdc8204_fk_outlines_pocket_id` (`pocket_id`),
  CONSTRAINT `portfolios_standingh_portfolio_id_ddfe2d59_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`),
  CONSTRAINT `portfolios_standinghold_pocket_id_6fdc8204_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_standinghold` VALUES (1,1,'Recipe card','{\"kind\": \"evidence\", \"artefacts\": 2, \"reflection_on_each\": true, \"length\": [\"sentences\", 2, 3]}','2026-11-04 10:00:00.000000',1,1);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_storedfile` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `size` bigint(20) NOT NULL,
  `media_type` varchar(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `width` int(10) unsigned DEFAULT NULL CHECK (`width` >= 0),
  `height` int(10) unsigned DEFAULT NULL CHECK (`height` >= 0),
  PRIMARY KEY (`id`),
  UNIQUE KEY `sha256` (`sha256`)
) ENGINE=InnoDB AUTO_INCREMENT=6 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_storedfile` VALUES (1,'886369a1e29f181062743be5d7fccac172445f440ddf11499a159f40c4a21489',678,'image/jpeg',60,40);
INSERT INTO `portfolios_storedfile` VALUES (2,'4e9cc5bbce2136140462d11c5fec6e6c1ed10602c2bca874dbb58e7b9be21092',3244,'audio/wav',NULL,NULL);
INSERT INTO `portfolios_storedfile` VALUES (3,'6ab297926189b1e0171e5a1cd0639b3f0d9cf6879ca540e82e9713fe0fc8bc8d',14,'text/plain',NULL,NULL);
INSERT INTO `portfolios_storedfile` VALUES (4,'6eb228fb5b59ab49a45a48bdd9e5f0ed65b43afb52ec72cc825a567986630827',5,'text/plain',NULL,NULL);
INSERT INTO `portfolios_storedfile` VALUES (5,'76cf386aec2e0cc64517e04ecef5cc0f0a152f3d3307485a6aa3eeec94d4a8dc',6,'text/plain',NULL,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_textrevision` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `text` longtext NOT NULL,
  `begun_at` datetime(6) NOT NULL,
  `saved_at` datetime(6) NOT NULL,
  `evidence_id` bigint(20) DEFAULT NULL,
  `person_id` bigint(20) NOT NULL,
  `html` longtext NOT NULL,
  `page_id` bigint(20) DEFAULT NULL,
  `written_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  KEY `portfolios_textrevision_person_id_de66a39b_fk_people_person_id` (`person_id`),
  KEY `portfolios_textrevis_page_id_3a6c5e00_fk_portfolio` (`page_id`),
  KEY `portfolios_textrevis_evidence_id_1a6a1494_fk_portfolio` (`evidence_id`),
  KEY `portfolios_textrevis_written_id_efffad40_fk_portfolio` (`written_id`),
  CONSTRAINT `portfolios_textrevis_evidence_id_1a6a1494_fk_portfolio` FOREIGN KEY (`evidence_id`) REFERENCES `portfolios_evidence` (`id`),
  CONSTRAINT `portfolios_textrevis_page_id_3a6c5e00_fk_portfolio` FOREIGN KEY (`page_id`) REFERENCES `portfolios_loosepage` (`id`),
  CONSTRAINT `portfolios_textrevis_written_id_efffad40_fk_portfolio` FOREIGN KEY (`written_id`) REFERENCES `portfolios_writtentext` (`id`),
  CONSTRAINT `portfolios_textrevision_person_id_de66a39b_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `revision_of_one_text` CHECK (`evidence_id` is not null and `page_id` is null and `written_id` is null or `evidence_id` is null and `page_id` is not null and `written_id` is null or `evidence_id` is null and `page_id` is null and `written_id` is not null)
) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_textrevision` VALUES (1,1,'One thing. Another thing.','2026-11-04 10:00:00.000000','2026-11-04 10:00:00.000000',1,2,'',NULL,NULL);
INSERT INTO `portfolios_textrevision` VALUES (2,1,'One thing. Another thing.','2026-11-04 10:00:00.000000','2026-11-04 10:00:00.000000',2,2,'',NULL,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_upload` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `key` varchar(43) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `name` varchar(130) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `note` varchar(300) NOT NULL,
  `size` bigint(20) NOT NULL,
  `turn` smallint(5) unsigned NOT NULL CHECK (`turn` >= 0),
  `crop` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL CHECK (json_valid(`crop`)),
  `batch` varchar(36) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `place` smallint(5) unsigned NOT NULL CHECK (`place` >= 0),
  `places` smallint(5) unsigned NOT NULL CHECK (`places` >= 0),
  `came_sha256` varchar(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `refused` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL CHECK (json_valid(`refused`)),
  `begun_at` datetime(6) NOT NULL,
  `done_at` datetime(6) DEFAULT NULL,
  `person_id` bigint(20) NOT NULL,
  `pocket_id` bigint(20) NOT NULL,
  `portfolio_id` bigint(20) NOT NULL,
  `replaces_id` bigint(20) DEFAULT NULL,
  `result_id` bigint(20) DEFAULT NULL,
  `spoken_on_id` bigint(20) DEFAULT NULL,
  `stored_id` bigint(20) DEFAULT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `key` (`key`),
  KEY `portfolios_upload_person_id_835e2549_fk_people_person_id` (`person_id`),
  KEY `portfolios_upload_pocket_id_0b7ebce2_fk_outlines_pocket_id` (`pocket_id`),
  KEY `portfolios_upload_portfolio_id_6ff456a3_fk_portfolio` (`portfolio_id`),
  KEY `portfolios_upload_replaces_id_a815038d_fk_portfolios_evidence_id` (`replaces_id`),
  KEY `portfolios_upload_result_id_4203f844_fk_portfolios_evidence_id` (`result_id`),
  KEY `portfolios_upload_spoken_on_id_330e37d6_fk_portfolio` (`spoken_on_id`),
  KEY `portfolios_upload_stored_id_687c429c_fk_portfolios_storedfile_id` (`stored_id`),
  CONSTRAINT `portfolios_upload_person_id_835e2549_fk_people_person_id` FOREIGN KEY (`person_id`) REFERENCES `people_person` (`id`),
  CONSTRAINT `portfolios_upload_pocket_id_0b7ebce2_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`),
  CONSTRAINT `portfolios_upload_portfolio_id_6ff456a3_fk_portfolio` FOREIGN KEY (`portfolio_id`) REFERENCES `portfolios_portfolio` (`id`),
  CONSTRAINT `portfolios_upload_replaces_id_a815038d_fk_portfolios_evidence_id` FOREIGN KEY (`replaces_id`) REFERENCES `portfolios_evidence` (`id`),
  CONSTRAINT `portfolios_upload_result_id_4203f844_fk_portfolios_evidence_id` FOREIGN KEY (`result_id`) REFERENCES `portfolios_evidence` (`id`),
  CONSTRAINT `portfolios_upload_spoken_on_id_330e37d6_fk_portfolio` FOREIGN KEY (`spoken_on_id`) REFERENCES `portfolios_evidence` (`id`),
  CONSTRAINT `portfolios_upload_stored_id_687c429c_fk_portfolios_storedfile_id` FOREIGN KEY (`stored_id`) REFERENCES `portfolios_storedfile` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=6 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_upload` VALUES (1,'ItwfGkbaQN_QygIWT8EysKGAp9S-z538uS5m01vgfsk','plan.pdf','',5,0,NULL,'',0,0,'',NULL,'2026-11-04 10:00:00.000000',NULL,2,3,1,NULL,NULL,NULL,NULL);
INSERT INTO `portfolios_upload` VALUES (2,'P7WQ283c2vsWw-adzh4cVUweQDDKJIqwyM1B8lvSEsg','seeds.txt','',5,0,NULL,'',0,0,'6eb228fb5b59ab49a45a48bdd9e5f0ed65b43afb52ec72cc825a567986630827',NULL,'2026-11-04 10:00:00.000000','2026-11-04 10:00:00.000000',2,5,1,NULL,5,NULL,4);
INSERT INTO `portfolios_upload` VALUES (3,'2Nqlg7lk5CeuvdvgG0qTzeFr1LJTfte1zoHBPjwmw3Y','seeds.txt','',6,0,NULL,'',0,0,'76cf386aec2e0cc64517e04ecef5cc0f0a152f3d3307485a6aa3eeec94d4a8dc',NULL,'2026-11-04 10:00:00.000000','2026-11-04 10:00:00.000000',2,5,1,5,5,NULL,5);
INSERT INTO `portfolios_upload` VALUES (4,'RClno3hJccPngcGk_LN-2Av2PY5aamabM4gdr15ft6Q','said.wav','',3244,0,NULL,'',0,0,'4e9cc5bbce2136140462d11c5fec6e6c1ed10602c2bca874dbb58e7b9be21092',NULL,'2026-11-04 10:00:00.000000','2026-11-04 10:00:00.000000',2,3,1,NULL,1,1,2);
INSERT INTO `portfolios_upload` VALUES (5,'7LaBLHEsBVh6__3nprAMqsmRiaJ2eQSeVv5S_QznINM','half.txt','',10,0,NULL,'',0,0,'',NULL,'2026-11-04 10:00:00.000000',NULL,2,5,1,NULL,NULL,NULL,NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_variantdeal` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `key` varchar(36) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  `enrolment_id` bigint(20) NOT NULL,
  `pocket_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `dealt_once` (`pocket_id`,`enrolment_id`),
  KEY `portfolios_variantde_enrolment_id_cea615b9_fk_people_en` (`enrolment_id`),
  CONSTRAINT `portfolios_variantde_enrolment_id_cea615b9_fk_people_en` FOREIGN KEY (`enrolment_id`) REFERENCES `people_enrolment` (`id`),
  CONSTRAINT `portfolios_variantdeal_pocket_id_3596cdad_fk_outlines_pocket_id` FOREIGN KEY (`pocket_id`) REFERENCES `outlines_pocket` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=4 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_variantdeal` VALUES (1,'a',3,6);
INSERT INTO `portfolios_variantdeal` VALUES (2,'b',1,6);
INSERT INTO `portfolios_variantdeal` VALUES (3,'b',2,6);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portfolios_writtentext` (
  `id` bigint(20) NOT NULL AUTO_INCREMENT,
  `text` longtext NOT NULL,
  `html` longtext NOT NULL,
  `words` int(10) unsigned NOT NULL CHECK (`words` >= 0),
  `sentences` int(10) unsigned NOT NULL CHECK (`sentences` >= 0),
  `version` int(10) unsigned NOT NULL CHECK (`version` >= 0),
  `changed_at` datetime(6) NOT NULL,
  `artefact_id` bigint(20) NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `artefact_id` (`artefact_id`),
  CONSTRAINT `portfolios_writtente_artefact_id_961df7e8_fk_portfolio` FOREIGN KEY (`artefact_id`) REFERENCES `portfolios_artefact` (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `portfolios_writtentext` VALUES (1,'','',0,0,0,'2026-11-04 10:00:00.000000',4);
